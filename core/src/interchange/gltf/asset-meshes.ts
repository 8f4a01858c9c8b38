import type { MeshPoints, MovedMesh } from '../../shot';
import { bytesOfUri } from '../asset-bytes';
import type { GltfBuilder } from './builder';
import type { GltfJson, GltfMesh, GltfTextureRef } from './document';
import { findAssetNode } from './asset-node';
import { readGlb } from './container';
import { meshPoints } from './mesh-points';

/** How a mesh is taken over: with its skin, and with what moves its points. */
export interface AddedMesh {
  readonly skinned: boolean;
  readonly moved: MovedMesh | null;
}

/** Where a mesh came to lie, and the material of its first primitive. */
export interface AddedIndices {
  readonly mesh: number;
  readonly material: number | null;
}

/** Copies meshes with their materials and textures out of GLB assets into a glTF that is being built; each once. */
export class AssetMeshes {
  private readonly opened = new Map<string, AssetCopy | null>();

  constructor(
    private readonly builder: GltfBuilder,
    private readonly uris: ReadonlyMap<string, string>,
  ) {}

  add(assetId: string, node: string, { skinned, moved }: AddedMesh): AddedIndices | null {
    return this.copyOf(assetId)?.mesh(node, skinned, moved) ?? null;
  }

  /** The points of a node's mesh; null where there is none. */
  points(assetId: string, node: string): MeshPoints | null {
    return this.copyOf(assetId)?.points(node) ?? null;
  }

  /** The inverse bind matrices of a node's skin, copied: the index of their accessor, null where there is no skin of so many joints. */
  binds(assetId: string, node: string, joints: number): { readonly accessor: number | undefined } | null {
    return this.copyOf(assetId)?.binds(node, joints) ?? null;
  }

  private copyOf(assetId: string): AssetCopy | null {
    let copy = this.opened.get(assetId);
    if (copy === undefined) {
      copy = this.open(assetId);
      this.opened.set(assetId, copy);
    }
    return copy;
  }

  private open(assetId: string): AssetCopy | null {
    const bytes = bytesOfUri(this.uris.get(assetId) ?? '');
    const glb = bytes ? readGlb(bytes) : null;
    if (!glb || 'reason' in glb) return null;
    return new AssetCopy(this.builder, JSON.parse(glb.text) as GltfJson, glb.bin);
  }
}

/** Meshes whose numbers are whole ones, which plain glTF allows for few attributes. */
const QUANTIZED = 'KHR_mesh_quantization';

class AssetCopy {
  private readonly maps = new Map<string, number>();

  constructor(
    private readonly builder: GltfBuilder,
    private readonly json: GltfJson,
    private readonly bin: Uint8Array,
  ) {}

  binds(nodeName: string, joints: number): { readonly accessor: number | undefined } | null {
    const index = findAssetNode(this.json, nodeName);
    const node = index === null ? undefined : this.json.nodes?.[index];
    const skin = node?.skin === undefined ? undefined : this.json.skins?.[node.skin];
    if (skin?.joints.length !== joints) return null;
    const { inverseBindMatrices } = skin;
    return { accessor: inverseBindMatrices === undefined ? undefined : this.accessor(inverseBindMatrices) };
  }

  mesh(nodeName: string, skinned: boolean, moved: MovedMesh | null): AddedIndices | null {
    const source = this.meshOf(nodeName);
    const mesh = source === null ? undefined : this.json.meshes?.[source];
    if (!mesh) return null;
    if (this.json.extensionsRequired?.includes(QUANTIZED)) this.builder.require(QUANTIZED);
    const ownOnly = !moved || moved.targets.length === moved.own;
    const copied = ownOnly
      ? this.once(`mesh ${source} ${skinned}`, () => this.copy(mesh, skinned, null))
      : this.copy(mesh, skinned, moved);
    return { mesh: copied, material: this.builder.json.meshes?.[copied]?.primitives[0]?.material ?? null };
  }

  points(nodeName: string): MeshPoints | null {
    const source = this.meshOf(nodeName);
    const mesh = source === null ? undefined : this.json.meshes?.[source];
    return mesh ? meshPoints(this.json, this.bin, mesh) : null;
  }

  private meshOf(nodeName: string): number | null {
    const index = findAssetNode(this.json, nodeName);
    return (index === null ? undefined : this.json.nodes?.[index]?.mesh) ?? null;
  }

  /** A mesh with its own targets; with those that move it besides, or in their place, where `moved` has such. */
  private copy(mesh: GltfMesh, skinned: boolean, moved: MovedMesh | null): number {
    let from = 0;
    const primitives = mesh.primitives.map((primitive) => {
      const points = this.json.accessors?.[primitive.attributes['POSITION'] ?? -1]?.count ?? 0;
      const [first, end] = [from * 3, (from += points) * 3];
      const own = (primitive.targets ?? []).slice(0, moved?.own ?? Infinity);
      const targets = [
        ...own.map((target) => this.attributes(target, skinned)),
        ...(moved?.targets.slice(moved.own) ?? []).map(({ displacements }) => ({
          POSITION: this.builder.floats(displacements.slice(first, end), 'VEC3', 3, {
            bounds: true,
            vertices: true,
          }),
        })),
      ];
      return {
        ...(primitive.mode === undefined ? {} : { mode: primitive.mode }),
        attributes: this.attributes(primitive.attributes, skinned),
        ...(primitive.indices === undefined ? {} : { indices: this.accessor(primitive.indices) }),
        ...(primitive.material === undefined ? {} : { material: this.material(primitive.material) }),
        ...(targets.length > 0 ? { targets } : {}),
      };
    });
    if (!moved) return this.builder.add('meshes', { ...mesh, primitives });
    const { weights: _, ...rest } = mesh;
    return this.builder.add('meshes', {
      ...rest,
      primitives,
      extras: { ...mesh.extras, targetNames: moved.targets.map(({ name }) => name) },
    });
  }

  private once(mark: string, make: () => number): number {
    const known = this.maps.get(mark);
    if (known !== undefined) return known;
    const index = make();
    this.maps.set(mark, index);
    return index;
  }

  /** Joints and weights come only with the skin they belong to. */
  private attributes(attributes: Readonly<Record<string, number>>, skinned: boolean): Record<string, number> {
    const kept = Object.entries(attributes).filter(([name]) => skinned || !/^(JOINTS|WEIGHTS)_/.test(name));
    return Object.fromEntries(kept.map(([name, accessor]) => [name, this.accessor(accessor)]));
  }

  private accessor(index: number): number {
    return this.once(`accessor ${index}`, () => {
      const { bufferView, sparse, ...accessor } = this.json.accessors![index]!;
      return this.builder.add('accessors', {
        ...accessor,
        ...(bufferView === undefined ? {} : { bufferView: this.view(bufferView) }),
        ...(sparse
          ? {
              sparse: {
                count: sparse.count,
                indices: { ...sparse.indices, bufferView: this.view(sparse.indices.bufferView) },
                values: { ...sparse.values, bufferView: this.view(sparse.values.bufferView) },
              },
            }
          : {}),
      });
    });
  }

  private view(index: number): number {
    return this.once(`view ${index}`, () => {
      const { byteOffset = 0, byteLength, byteStride, target } = this.json.bufferViews![index]!;
      return this.builder.view(this.bin.slice(byteOffset, byteOffset + byteLength), {
        ...(byteStride === undefined ? {} : { byteStride }),
        ...(target === undefined ? {} : { target }),
      });
    });
  }

  private material(index: number): number {
    return this.once(`material ${index}`, () => {
      const material = structuredCloneJson(this.json.materials![index]!);
      this.retargetAll(material as unknown as Record<string, unknown>);
      return this.builder.add('materials', material);
    });
  }

  /** Textures that a material and its extensions name, at any depth, and the extensions it uses. */
  private retargetAll(holder: Record<string, unknown>): void {
    for (const [name, value] of Object.entries(holder)) {
      if (name === 'extras' || typeof value !== 'object' || value === null) continue;
      if (name === 'extensions') for (const used of Object.keys(value)) this.builder.use(used);
      if (/texture$/i.test(name) && 'index' in value) this.retarget(value as GltfTextureRef);
      this.retargetAll(value as Record<string, unknown>);
    }
  }

  private retarget(reference: GltfTextureRef): void {
    reference.index = this.once(`texture ${reference.index}`, () => {
      const { sampler, source, ...texture } = structuredCloneJson(this.json.textures![reference.index]!);
      this.useImages(texture);
      return this.builder.add('textures', {
        ...texture,
        ...(sampler === undefined
          ? {}
          : {
              sampler: this.once(`sampler ${sampler}`, () =>
                this.builder.add('samplers', this.json.samplers![sampler]!),
              ),
            }),
        ...(source === undefined ? {} : { source: this.image(source) }),
      });
    });
  }

  /** Images in other formats, which a texture names in its extensions. */
  private useImages({ extensions }: Readonly<Record<string, unknown>>): void {
    for (const [name, value] of Object.entries((extensions ?? {}) as Record<string, { source?: number }>)) {
      this.builder.use(name);
      if (typeof value.source === 'number') value.source = this.image(value.source);
    }
  }

  private image(index: number): number {
    return this.once(`image ${index}`, () => {
      const { bufferView, ...image } = this.json.images![index]!;
      return this.builder.add('images', {
        ...image,
        ...(bufferView === undefined ? {} : { bufferView: this.view(bufferView) }),
      });
    });
  }
}

function structuredCloneJson<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}
