import { align } from './container';
import {
  COMPONENT_BYTES,
  TYPE_SIZES,
  type GltfAccessor,
  type GltfBufferView,
  type GltfDocument,
  type GltfJson,
  type GltfMesh,
} from './document';
import { DRACO, MESHOPT } from './mesh-decoders';
import { isCount, MOST_MODEL_BYTES } from './model-checks';
import { gltfProblem } from './model-problem';
import { packingsOf, readAccessors, type AccessorArray } from './read-accessors';

/**
 * A document with its packed meshes unpacked (Draco, meshopt): from here on everything reads plain numbers, and whoever takes the
 * model over from us needs no decoder. A document that is not packed is given back as it is. Throws ModelProblem.
 */
export async function unpackMeshes(document: GltfDocument): Promise<GltfDocument> {
  const { json } = document;
  const packings = packingsOf(json);
  if (packings.length === 0) return document;
  const packed = packedAccessors(json);
  checkSizes(json, packed);
  const numbers = await readAccessors(document);
  const attributes = attributeAccessors(json);
  const joined = new Joiner(document);
  const accessors = json.accessors!.map((accessor, i) => {
    if (!packed.has(i)) return joined.keep(accessor);
    const { array } = numbers[i]!;
    const wanted = accessor.count * TYPE_SIZES[accessor.type]!;
    if (array.length !== wanted)
      throw gltfProblem(
        `/accessors/${i}`,
        `it says ${wanted} numbers, and ${array.length} were packed; the file is damaged`,
      );
    return joined.unpacked(accessor, array, attributes.has(i));
  });
  const images = json.images?.map((image) =>
    image.bufferView === undefined ? image : { ...image, bufferView: joined.view(image.bufferView) },
  );
  const { bufferViews, bin } = joined.finish();
  const { extensionsUsed, extensionsRequired, ...rest } = json;
  return {
    json: {
      ...rest,
      ...listed('extensionsUsed', extensionsUsed),
      ...listed('extensionsRequired', extensionsRequired),
      accessors,
      bufferViews,
      buffers: [{ byteLength: bin.length }],
      ...(images ? { images } : {}),
      ...(json.meshes ? { meshes: json.meshes.map(withoutPacking) } : {}),
    },
    bin,
  };
}

function listed(name: 'extensionsUsed' | 'extensionsRequired', list: readonly string[] | undefined): object {
  const left = list?.filter((each) => each !== DRACO && each !== MESHOPT) ?? [];
  return left.length === 0 ? {} : { [name]: left };
}

/** The accessors whose numbers come out of a packed stream. */
function packedAccessors(json: GltfJson): ReadonlySet<number> {
  const packed = new Set<number>();
  json.accessors?.forEach(({ bufferView, sparse }, i) => {
    const views = [bufferView, sparse?.indices.bufferView, sparse?.values.bufferView];
    if (views.some((view) => view !== undefined && json.bufferViews?.[view]?.extensions?.[MESHOPT]))
      packed.add(i);
  });
  for (const { primitives } of json.meshes ?? [])
    for (const { attributes, indices, extensions } of primitives) {
      const draco = extensions?.[DRACO] as { attributes?: Record<string, number> } | undefined;
      if (!draco) continue;
      for (const name of Object.keys(draco.attributes ?? {}))
        if (attributes[name] !== undefined) packed.add(attributes[name]);
      if (indices !== undefined) packed.add(indices);
    }
  return packed;
}

function attributeAccessors(json: GltfJson): ReadonlySet<number> {
  const used = new Set<number>();
  for (const { primitives } of json.meshes ?? [])
    for (const { attributes, targets } of primitives)
      for (const each of [attributes, ...(targets ?? [])])
        for (const accessor of Object.values(each)) used.add(accessor);
  return used;
}

/** Nothing is unpacked that says of itself that it is too large, or that names what is not there. */
function checkSizes(json: GltfJson, packed: ReadonlySet<number>): void {
  let total = 0;
  for (const i of packed) {
    const accessor = json.accessors?.[i];
    const bytes = accessor && COMPONENT_BYTES[accessor.componentType];
    const size = accessor && TYPE_SIZES[accessor.type];
    if (!accessor || bytes === undefined || size === undefined || !isCount(accessor.count))
      throw gltfProblem(`/accessors/${i}`, 'its type or count is not one of glTF; the file is damaged');
    total += accessor.count * size * bytes;
  }
  json.bufferViews?.forEach(({ extensions, byteLength }, i) => {
    const packing = extensions?.[MESHOPT] as { count?: unknown; byteStride?: unknown } | undefined;
    if (!packing) return;
    const { count, byteStride } = packing;
    if (!isCount(count) || !isCount(byteStride) || count * byteStride !== byteLength)
      throw gltfProblem(
        `/bufferViews/${i}/extensions/${MESHOPT}`,
        'its count and stride do not make the length of its view; the file is damaged',
      );
    total += byteLength;
  });
  if (total > MOST_MODEL_BYTES)
    throw gltfProblem(
      '/accessors',
      `unpacked it would be ${Math.round(total / 1048576)} MB, and must be at most 512 MB`,
    );
}

function withoutPacking(mesh: GltfMesh): GltfMesh {
  return {
    ...mesh,
    primitives: mesh.primitives.map(({ extensions, ...primitive }) => {
      const left = Object.entries(extensions ?? {}).filter(([name]) => name !== DRACO);
      return left.length === 0 ? primitive : { ...primitive, extensions: Object.fromEntries(left) };
    }),
  };
}

const COMPONENT_OF: ReadonlyMap<unknown, number> = new Map<unknown, number>([
  [Int8Array, 5120],
  [Uint8Array, 5121],
  [Int16Array, 5122],
  [Uint16Array, 5123],
  [Uint32Array, 5125],
  [Float32Array, 5126],
]);

/** Gathers the views that are still used, and new ones of unpacked numbers, into one buffer. */
class Joiner {
  private readonly views: GltfBufferView[] = [];
  private readonly chunks: Uint8Array[] = [];
  private readonly kept = new Map<number, number>();
  private length = 0;

  constructor(private readonly document: GltfDocument) {}

  keep(accessor: GltfAccessor): GltfAccessor {
    const { bufferView, sparse } = accessor;
    return {
      ...accessor,
      ...(bufferView === undefined ? {} : { bufferView: this.view(bufferView) }),
      ...(sparse
        ? {
            sparse: {
              ...sparse,
              indices: { ...sparse.indices, bufferView: this.view(sparse.indices.bufferView) },
              values: { ...sparse.values, bufferView: this.view(sparse.values.bufferView) },
            },
          }
        : {}),
    };
  }

  /** An accessor of numbers side by side; elements of a mesh begin on multiples of four bytes (glTF 2.0 §3.6.2.4). */
  unpacked(accessor: GltfAccessor, array: AccessorArray, isAttribute: boolean): GltfAccessor {
    const { bufferView: _view, byteOffset: _offset, sparse: _sparse, ...rest } = accessor;
    const element = TYPE_SIZES[accessor.type]! * array.BYTES_PER_ELEMENT;
    const bytes = new Uint8Array(array.buffer, array.byteOffset, array.byteLength);
    const stride = isAttribute ? align(element) : element;
    const spaced = stride === element ? bytes : spacedOut(bytes, element, stride);
    const bufferView = this.append(spaced, stride === element ? {} : { byteStride: stride });
    const bounds = accessor.min || accessor.max ? boundsOf(array, TYPE_SIZES[accessor.type]!) : {};
    return { ...rest, ...bounds, bufferView, componentType: COMPONENT_OF.get(array.constructor)! };
  }

  /** The new place of a view of the document. */
  view(index: number): number {
    const known = this.kept.get(index);
    if (known !== undefined) return known;
    const { json, bin } = this.document;
    const { byteOffset = 0, ...view } = json.bufferViews![index]!;
    const made = this.append(bin.subarray(byteOffset, byteOffset + view.byteLength), view);
    this.kept.set(index, made);
    return made;
  }

  private append(bytes: Uint8Array, more: Partial<GltfBufferView>): number {
    this.views.push({ ...more, buffer: 0, byteOffset: this.length, byteLength: bytes.length });
    this.chunks.push(bytes);
    this.length += align(bytes.length);
    return this.views.length - 1;
  }

  finish(): { readonly bufferViews: GltfBufferView[]; readonly bin: Uint8Array } {
    const bin = new Uint8Array(this.length);
    this.chunks.forEach((chunk, i) => bin.set(chunk, this.views[i]!.byteOffset));
    return { bufferViews: this.views, bin };
  }
}

/** What is packed with loss has other bounds than were written down. */
function boundsOf(array: AccessorArray, size: number): Pick<GltfAccessor, 'min' | 'max'> {
  const min = Array.from(array.subarray(0, size));
  const max = min.slice();
  for (let i = 0; i < array.length; i++) {
    const n = i % size;
    min[n] = Math.min(min[n]!, array[i]!);
    max[n] = Math.max(max[n]!, array[i]!);
  }
  return { min, max };
}

function spacedOut(bytes: Uint8Array, element: number, stride: number): Uint8Array {
  const count = bytes.length / element;
  const spaced = new Uint8Array(count * stride);
  for (let i = 0; i < count; i++) spaced.set(bytes.subarray(i * element, (i + 1) * element), i * stride);
  return spaced;
}
