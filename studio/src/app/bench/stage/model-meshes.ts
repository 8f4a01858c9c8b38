import { Injectable, inject } from '@angular/core';
import { modelMeshes, type ModelMeshOf } from '@kaizen/core';
import { Assets } from '../../state/assets';
import { Studio } from '../../state/studio';

/** Points and triangles of the meshes that come from models, each read once. */
@Injectable({ providedIn: 'root' })
export class ModelMeshes {
  private readonly assets = inject(Assets);
  private readonly studio = inject(Studio);
  private readonly opened = new Map<string, ReturnType<typeof modelMeshes>>();

  readonly of: ModelMeshOf = ({ geometry }) => {
    if (geometry.shape !== 'asset') return null;
    const asset = this.studio.project()?.assets.find(({ id }) => id === geometry.asset);
    const bytes = asset && this.assets.bytesOf(asset);
    if (!asset || !bytes) return null;
    let meshes = this.opened.get(asset.sha256);
    if (!meshes) this.opened.set(asset.sha256, (meshes = modelMeshes(bytes)));
    return meshes(geometry.node);
  };
}
