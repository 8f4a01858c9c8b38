import {
  Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
  InterleavedBuffer,
  InterleavedBufferAttribute,
  Sphere,
  type Texture,
} from 'three';
import type { GltfJson, GltfPrimitive, ModelSkin } from '@kaizen/core';

type GltfMaterial = NonNullable<GltfJson['materials']>[number];

/** A mesh of a model: its triangles, the colour and the picture on them; `oneSided`: its file shows no backs of them. */
export interface AssetMesh {
  readonly geometry: BufferGeometry;
  readonly color: Color;
  readonly map: Texture | null;
  readonly skin: ModelSkin | null;
  readonly oneSided: boolean;
}

/** What glTF's numbers of component types stand for. */
type Types = Readonly<
  Record<
    number,
    Float32ArrayConstructor | Uint8ArrayConstructor | Uint16ArrayConstructor | Uint32ArrayConstructor
  >
>;

/** What an accessor has to hold: so many numbers an element, of one of some types. */
interface Wanted {
  readonly type: 'VEC3' | 'SCALAR';
  readonly size: number;
  readonly types: Types;
}
const POINTS: Wanted = { type: 'VEC3', size: 3, types: { 5126: Float32Array } };
const CORNERS: Wanted = {
  type: 'SCALAR',
  size: 1,
  types: { 5121: Uint8Array, 5123: Uint16Array, 5125: Uint32Array },
};

type Attribute = BufferAttribute | InterleavedBufferAttribute;

const TRIANGLES = 4;
const WHITE: readonly number[] = [1, 1, 1];

/**
 * Meshes of a model that can be drawn from its bytes as they lie there: triangles of plain floats in one colour, without picture, skin,
 * target shapes or extensions. A loader that can do all of glTF takes a tenth of a millisecond for each of them; models have thousands.
 */
export class PlainMeshes {
  private readonly attributes = new Map<number, Attribute | null>();
  private readonly rows = new Map<string, InterleavedBuffer>();
  private readonly meshes = new Map<number, readonly AssetMesh[] | null>();

  constructor(
    private readonly json: GltfJson,
    private readonly bin: Uint8Array,
  ) {}

  /** The meshes of a node, by its number; null where they need more. */
  of(node: number): readonly AssetMesh[] | null {
    const { mesh, skin } = this.json.nodes![node]!;
    if (mesh === undefined) return [];
    if (skin !== undefined) return null;
    let found = this.meshes.get(mesh);
    if (found === undefined) this.meshes.set(mesh, (found = this.mesh(mesh)));
    return found;
  }

  private mesh(index: number): readonly AssetMesh[] | null {
    const meshes: AssetMesh[] = [];
    for (const primitive of this.json.meshes![index]!.primitives) {
      const material = primitive.material === undefined ? {} : this.json.materials![primitive.material]!;
      const [geometry, color] = [this.geometry(primitive), plainColor(material)];
      if (!geometry || !color) return null;
      meshes.push({ geometry, color, map: null, skin: null, oneSided: material.doubleSided !== true });
    }
    return meshes;
  }

  private geometry({ attributes, indices, mode, targets, extensions }: GltfPrimitive): BufferGeometry | null {
    if ((mode ?? TRIANGLES) !== TRIANGLES || targets || extensions) return null;
    const position = this.attribute(attributes['POSITION'], POINTS);
    const normal = this.attribute(attributes['NORMAL'], POINTS);
    const index = this.attribute(indices, CORNERS);
    if (!position || normal === null || index === null) return null;
    const geometry = new BufferGeometry().setAttribute('position', position);
    if (normal) geometry.setAttribute('normal', normal);
    geometry.boundingBox = boundsOf(position);
    geometry.boundingSphere = geometry.boundingBox.getBoundingSphere(new Sphere());
    return index instanceof BufferAttribute ? geometry.setIndex(index) : geometry;
  }

  /** Numbers of an accessor as they lie in the file; null where they are packed in another way, undefined where none are named. */
  private attribute(index: number | undefined, wanted: Wanted): Attribute | null | undefined {
    if (index === undefined) return undefined;
    let attribute = this.attributes.get(index);
    if (attribute === undefined) this.attributes.set(index, (attribute = this.numbers(index, wanted)));
    return attribute;
  }

  private numbers(index: number, { type, size, types }: Wanted): Attribute | null {
    const accessor = this.json.accessors![index]!;
    const { bufferView, byteOffset = 0, componentType, count, normalized, sparse } = accessor;
    const view = bufferView === undefined ? null : this.json.bufferViews![bufferView]!;
    const Type = types[componentType];
    if (!view || !Type || accessor.type !== type || normalized || sparse || view.extensions) return null;
    const bytes = Type.BYTES_PER_ELEMENT;
    const stride = view.byteStride ?? bytes * size;
    const row = Math.floor(byteOffset / stride) * stride;
    const start = this.bin.byteOffset + (view.byteOffset ?? 0) + row;
    const end = this.bin.byteOffset + this.bin.length;
    if (start % bytes !== 0 || stride % bytes !== 0 || start + count * stride > end) return null;
    const array = (length: number) => new Type(this.bin.buffer as ArrayBuffer, start, length);
    if (stride === bytes * size) return new BufferAttribute(array(count * size), size);
    // Places and normals of a vertex may lie side by side, then both are read from one list.
    const key = `${start} ${stride} ${count}`;
    let rows = this.rows.get(key);
    if (!rows)
      this.rows.set(key, (rows = new InterleavedBuffer(array((count * stride) / bytes), stride / bytes)));
    return new InterleavedBufferAttribute(rows, size, (byteOffset - row) / bytes);
  }
}

/** A material's colour; null where a picture lies on it or an extension has a say. */
function plainColor({ pbrMetallicRoughness, extensions }: GltfMaterial): Color | null {
  const { baseColorFactor = WHITE, baseColorTexture } = pbrMetallicRoughness ?? {};
  return baseColorTexture || extensions ? null : new Color().fromArray(baseColorFactor);
}

/** The box around some points. As three.js has it, but not number by number through the attribute: a model has a million. */
function boundsOf(points: Attribute): Box3 {
  const isSideBySide = points instanceof InterleavedBufferAttribute;
  const stride = isSideBySide ? points.data.stride : 3;
  const bounds = new Box3();
  const [min, max] = [bounds.min.toArray(), bounds.max.toArray()];
  for (let i = 0, at = isSideBySide ? points.offset : 0; i < points.count; i++, at += stride)
    for (let axis = 0; axis < 3; axis++) {
      const value = points.array[at + axis]!;
      if (value < min[axis]!) min[axis] = value;
      if (value > max[axis]!) max[axis] = value;
    }
  bounds.min.fromArray(min);
  bounds.max.fromArray(max);
  return bounds;
}
