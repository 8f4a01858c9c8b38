import type { MeshPoints } from '../../shot';
import type { ModelSkin, ModelVertices } from '../../rig';
import { findAssetNode } from './asset-node';
import { readGlb } from './container';
import type { GltfAccessor, GltfJson, GltfMesh } from './document';

/** A view of one number of a component type, and what a whole number stands for where it is normalised (glTF 2.0, 3.6.2.2). */
const COMPONENTS: Readonly<
  Record<
    number,
    { readonly bytes: number; readonly full: number; readonly read: (view: DataView, at: number) => number }
  >
> = {
  5120: { bytes: 1, full: 127, read: (view, at) => view.getInt8(at) },
  5121: { bytes: 1, full: 255, read: (view, at) => view.getUint8(at) },
  5122: { bytes: 2, full: 32767, read: (view, at) => view.getInt16(at, true) },
  5123: { bytes: 2, full: 65535, read: (view, at) => view.getUint16(at, true) },
  5125: { bytes: 4, full: 4294967295, read: (view, at) => view.getUint32(at, true) },
  5126: { bytes: 4, full: 1, read: (view, at) => view.getFloat32(at, true) },
};

/** The points of all primitives of a mesh in a row, and where each of the mesh's own targets moves them. */
export function meshPoints(json: GltfJson, bin: Uint8Array, mesh: GltfMesh): MeshPoints {
  const primitives = mesh.primitives.filter(({ attributes }) => attributes['POSITION'] !== undefined);
  const positions = primitives.map(({ attributes }) => points(json, bin, attributes['POSITION']!));
  const count = Math.max(0, ...primitives.map(({ targets }) => targets?.length ?? 0));
  const own = Array.from({ length: count }, (_, target) =>
    primitives.flatMap(({ targets }, i) => {
      const accessor = targets?.[target]?.['POSITION'];
      return accessor === undefined ? positions[i]!.map(() => 0) : points(json, bin, accessor);
    }),
  );
  return { positions: positions.flat(), own };
}

/** The mesh of a model: its vertices and triangles. */
export interface ModelMesh extends ModelVertices {
  readonly indices: readonly number[];
}

/**
 * The meshes of a GLB by their nodes, with targets and skin; null where there is none. The file is taken apart once and each mesh read
 * once, however often it is asked for. Only triangles count, not strips and fans.
 */
export function modelMeshes(bytes: Uint8Array): (node: string) => ModelMesh | null {
  const glb = readGlb(bytes);
  if ('reason' in glb) return () => null;
  const json = JSON.parse(glb.text) as GltfJson;
  const read = new Map<string, ModelMesh | null>();
  return (node) => {
    let mesh = read.get(node);
    if (mesh === undefined) read.set(node, (mesh = meshOf(json, glb.bin, node)));
    return mesh;
  };
}

function meshOf(json: GltfJson, bin: Uint8Array, node: string): ModelMesh | null {
  const index = findAssetNode(json, node);
  const found = index === null ? undefined : json.nodes?.[index];
  const mesh = json.meshes?.[found?.mesh ?? -1];
  if (!found || !mesh) return null;
  const indices: number[] = [];
  let first = 0;
  for (const { attributes, indices: list, mode = 4 } of mesh.primitives) {
    const count = json.accessors?.[attributes['POSITION'] ?? -1]?.count ?? 0;
    if (mode === 4) {
      const own = list === undefined ? null : scalars(json, bin, list);
      for (let i = 0; i < (own?.length ?? count); i++) indices.push(first + (own ? own[i]! : i));
    }
    first += count;
  }
  return { ...meshPoints(json, bin, mesh), indices, skin: skinOf(json, bin, mesh, found.skin) };
}

/** The skin of a mesh: the joints and shares of all its primitives' vertices in a row; null where some have none. */
function skinOf(
  json: GltfJson,
  bin: Uint8Array,
  mesh: GltfMesh,
  index: number | undefined,
): ModelSkin | null {
  const skin = json.skins?.[index ?? -1];
  const pulls = mesh.primitives.map(({ attributes }) => [attributes['JOINTS_0'], attributes['WEIGHTS_0']]);
  if (!skin || pulls.some((pair) => pair.includes(undefined))) return null;
  const all = (which: 0 | 1) => pulls.flatMap((pair) => numbers(json, bin, pair[which]!, 4));
  const binds =
    skin.inverseBindMatrices === undefined ? null : numbers(json, bin, skin.inverseBindMatrices, 16);
  return {
    joints: all(0),
    weights: all(1),
    inverseBinds: skin.joints.map((_, i) => binds?.slice(i * 16, i * 16 + 16) ?? UNMOVED),
  };
}

const UNMOVED = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

/** An accessor's whole numbers. */
function scalars(json: GltfJson, bin: Uint8Array, index: number): number[] {
  const { bufferView, byteOffset = 0, componentType, count } = json.accessors![index]!;
  const { byteOffset: start = 0 } = json.bufferViews?.[bufferView ?? -1] ?? {};
  const view = new DataView(bin.buffer, bin.byteOffset, bin.byteLength);
  const { bytes, read } = COMPONENTS[componentType]!;
  return Array.from({ length: count }, (_, i) => read(view, start + byteOffset + i * bytes));
}

/** An accessor's points, three numbers each. */
function points(json: GltfJson, bin: Uint8Array, index: number): number[] {
  return numbers(json, bin, index, 3);
}

/** An accessor's numbers, `size` each. */
function numbers(json: GltfJson, bin: Uint8Array, index: number, size: number): number[] {
  const accessor = json.accessors![index]!;
  const out = new Array<number>(accessor.count * size).fill(0);
  const view = new DataView(bin.buffer, bin.byteOffset, bin.byteLength);
  if (accessor.bufferView !== undefined)
    fill(
      json,
      view,
      accessor,
      accessor.bufferView,
      accessor.byteOffset ?? 0,
      (i) => i,
      accessor.count,
      size,
      out,
    );
  const { sparse } = accessor;
  if (!sparse) return out;
  const { read, bytes } = COMPONENTS[sparse.indices.componentType]!;
  const start =
    (json.bufferViews![sparse.indices.bufferView]!.byteOffset ?? 0) + (sparse.indices.byteOffset ?? 0);
  const place = (i: number) => read(view, start + i * bytes);
  fill(
    json,
    view,
    accessor,
    sparse.values.bufferView,
    sparse.values.byteOffset ?? 0,
    place,
    sparse.count,
    size,
    out,
  );
  return out;
}

function fill(
  json: GltfJson,
  view: DataView,
  { componentType, normalized }: GltfAccessor,
  bufferView: number,
  byteOffset: number,
  place: (i: number) => number,
  count: number,
  size: number,
  out: number[],
): void {
  const { byteOffset: first = 0, byteStride } = json.bufferViews![bufferView]!;
  const { bytes, full, read } = COMPONENTS[componentType]!;
  const stride = byteStride ?? bytes * size;
  for (let i = 0; i < count; i++)
    for (let row = 0; row < size; row++) {
      const value = read(view, first + byteOffset + i * stride + row * bytes);
      out[place(i) * size + row] = normalized ? Math.max(-1, value / full) : value;
    }
}
