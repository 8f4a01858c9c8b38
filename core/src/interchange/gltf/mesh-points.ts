import type { MeshPoints } from '../../shot';
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

/** The points and triangles of the mesh of a node of a GLB; null where there are none. Only triangles count, not strips and fans. */
export function modelMesh(
  bytes: Uint8Array,
  node: string,
): { readonly positions: readonly number[]; readonly indices: readonly number[] } | null {
  const glb = readGlb(bytes);
  if ('reason' in glb) return null;
  const json = JSON.parse(glb.text) as GltfJson;
  const index = findAssetNode(json, node);
  const mesh = json.meshes?.[(index === null ? undefined : json.nodes?.[index]?.mesh) ?? -1];
  if (!mesh) return null;
  const indices: number[] = [];
  let first = 0;
  for (const { attributes, indices: list, mode = 4 } of mesh.primitives) {
    const count = json.accessors?.[attributes['POSITION'] ?? -1]?.count ?? 0;
    if (mode === 4) {
      const own = list === undefined ? null : scalars(json, glb.bin, list);
      for (let i = 0; i < (own?.length ?? count); i++) indices.push(first + (own ? own[i]! : i));
    }
    first += count;
  }
  return { positions: meshPoints(json, glb.bin, mesh).positions, indices };
}

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
  const accessor = json.accessors![index]!;
  const out = new Array<number>(accessor.count * 3).fill(0);
  const view = new DataView(bin.buffer, bin.byteOffset, bin.byteLength);
  if (accessor.bufferView !== undefined)
    fill(json, view, accessor, accessor.bufferView, accessor.byteOffset ?? 0, (i) => i, accessor.count, out);
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
  out: number[],
): void {
  const { byteOffset: first = 0, byteStride } = json.bufferViews![bufferView]!;
  const { bytes, full, read } = COMPONENTS[componentType]!;
  const stride = byteStride ?? bytes * 3;
  for (let i = 0; i < count; i++)
    for (let row = 0; row < 3; row++) {
      const value = read(view, first + byteOffset + i * stride + row * bytes);
      out[place(i) * 3 + row] = normalized ? Math.max(-1, value / full) : value;
    }
}
