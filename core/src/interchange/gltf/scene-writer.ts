import type { AssetGeometry, Part } from '../../project';
import { channelName } from '../../project';
import { movedMesh, type MovedMesh, type Shot } from '../../shot';
import { AssetMeshes } from './asset-meshes';
import type { GltfBuilder } from './builder';
import type { GltfNode } from './document';
import { uniqueNames } from './names';
import { addCamera, addLight, addMesh, assetSources } from './part-content';
import { partChain, type ChainNode } from './part-nodes';

/** A part as it stands in the file: its chain of nodes with their indices, and what it shows. */
export interface PartNodes {
  readonly part: Part;
  /** The part's place in the project's file. */
  readonly place: number;
  readonly chain: readonly ChainNode[];
  readonly indices: readonly number[];
  readonly material: number | null;
  readonly camera: number | null;
  readonly light: number | null;
  /** How its mesh is deformed; null where it is not. */
  readonly moved: MovedMesh | null;
}

/** Writes the parts as chains of nodes, with their meshes, materials, cameras and lights, and the scene that holds them. */
export class SceneWriter {
  readonly parts: PartNodes[] = [];
  private readonly lights: unknown[] = [];
  private readonly skinned = new Set<string>();

  constructor(
    private readonly builder: GltfBuilder,
    private readonly shot: Shot,
    private readonly clips: readonly Shot[],
    private readonly tell: (message: string) => void,
  ) {}

  write(): void {
    const { builder } = this;
    const { project } = this.shot;
    const names = uniqueNames(project.parts.map((part) => part.id));
    const assets = new AssetMeshes(builder, assetSources(project));
    const roots: number[] = [];
    const last = new Map<string, GltfNode>();
    project.parts.forEach((part, i) => {
      const chain = partChain(this.shot, part, i);
      const indices = chain.map(({ node }, depth) => {
        node.name =
          depth === 0 ? names[i]! : `${names[i]!}_${depth === chain.length - 1 ? 'body' : 'squash'}`;
        return builder.add('nodes', node);
      });
      chain.slice(1).forEach((_, depth) => (chain[depth]!.node.children = [indices[depth + 1]!]));
      const bearer = chain.at(-1)!.node;
      last.set(part.id, bearer);
      const content = this.content(part, bearer, assets);
      const first = chain[0]!.node;
      first.extras = { kaizen: { id: part.id, name: part.name, kind: part.kind } };
      if (part.visible < 0.5 || this.shot.moving.has(channelName(part.id, 'visible'))) {
        builder.use('KHR_node_visibility');
        first.extensions = { ...first.extensions, KHR_node_visibility: { visible: part.visible >= 0.5 } };
      }
      this.parts.push({ part, place: i, chain, indices, ...content });
    });
    this.parts.forEach(({ part, indices }) => {
      const parent = part.parent === null ? undefined : last.get(part.parent);
      if (parent) (parent.children ??= []).push(indices[0]!);
      else roots.push(indices[0]!);
    });
    for (const { part, indices } of this.parts) this.writeSkin(part, indices.at(-1)!, assets);
    builder.json.scene = 0;
    builder.json.scenes = [{ name: project.name, ...(roots.length > 0 ? { nodes: roots } : {}) }];
    if (this.lights.length > 0) builder.json.extensions = { KHR_lights_punctual: { lights: this.lights } };
  }

  /** Joints on the nodes that bear what hangs on the parts they stand for. */
  private writeSkin(part: Part, bearer: number, assets: AssetMeshes): void {
    const node = this.builder.json.nodes![bearer]!;
    const geometry = assetOf(part);
    if (!this.skinned.has(part.id) || !geometry?.skin || node.mesh === undefined) return;
    const { asset, node: name, skin: ids } = geometry;
    const binds = assets.binds(asset, name, ids.length);
    const bearers = new Map(this.parts.map(({ part: { id }, indices }) => [id, indices.at(-1)!]));
    node.skin = this.builder.add('skins', {
      name: part.name,
      joints: ids.map((id) => bearers.get(id)!),
      ...(binds?.accessor === undefined ? {} : { inverseBindMatrices: binds.accessor }),
    });
  }

  /** Meshes whose joints stand in one tree, as glTF wants them; others are written as modelled. */
  private isSkinned(part: Part, assets: AssetMeshes): boolean {
    const geometry = assetOf(part);
    if (!geometry?.skin || !assets.binds(geometry.asset, geometry.node, geometry.skin.length)) return false;
    const parents = new Map(this.shot.project.parts.map(({ id, parent }) => [id, parent]));
    const roots = new Set(geometry.skin.map((id) => rootOf(parents, id)));
    if (roots.size === 1) return true;
    this.tell(
      `${part.name} has joints in ${roots.size} trees, and glTF has one for a skin: it stands as modelled`,
    );
    return false;
  }

  private content(
    part: Part,
    node: GltfNode,
    assets: AssetMeshes,
  ): Pick<PartNodes, 'material' | 'camera' | 'light' | 'moved'> {
    const none = { material: null, camera: null, light: null, moved: null };
    switch (part.kind) {
      case 'mesh': {
        const alone = this.clips.map(({ program }) => program);
        const geometry = assetOf(part);
        const points = geometry && assets.points(geometry.asset, geometry.node);
        const moved = movedMesh(part, this.shot.program, alone, this.shot.settings, points);
        if (this.isSkinned(part, assets)) this.skinned.add(part.id);
        const added = addMesh(
          this.builder,
          part,
          assets,
          moved && { ...moved, first: moved.weights(this.shot.program, this.shot.settings.start) },
          this.skinned.has(part.id),
        );
        if (!added) return none;
        node.mesh = added.mesh;
        if (points && moved) node.weights = [...moved.weights(this.shot.program, this.shot.settings.start)];
        return { ...none, material: added.material, moved };
      }
      case 'camera':
        node.camera = addCamera(this.builder, part.camera);
        return { ...none, camera: node.camera };
      case 'light': {
        const light = addLight(this.builder, this.lights, part.light);
        node.extensions = { KHR_lights_punctual: { light } };
        return { ...none, light };
      }
      case 'path':
      case 'group':
        return none;
    }
  }
}

function assetOf(part: Part): AssetGeometry | null {
  return part.kind === 'mesh' && part.geometry.shape === 'asset' ? part.geometry : null;
}

/** The part at the top of the tree in which a part stands. */
function rootOf(parents: ReadonlyMap<string, string | null>, id: string): string {
  let at = id;
  for (let parent = parents.get(at); parent; parent = parents.get(at)) at = parent;
  return at;
}
