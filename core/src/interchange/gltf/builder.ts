import { align } from './container';
import {
  FLOAT,
  UNSIGNED_INT,
  UNSIGNED_SHORT,
  type GltfAccessor,
  type GltfBufferView,
  type GltfDocument,
  type GltfJson,
} from './document';

const ARRAY_BUFFER = 34962;
const ELEMENT_ARRAY_BUFFER = 34963;

/** Gathers a glTF's binary buffer and the views and accessors into it. */
export class GltfBuilder {
  readonly json: GltfJson = { asset: { version: '2.0', generator: 'Kaizen' } };
  private readonly chunks: Uint8Array[] = [];
  private length = 0;
  private readonly used = new Set<string>();
  private readonly required = new Set<string>();

  use(extension: string): void {
    this.used.add(extension);
  }

  /** A reader that does not know the extension must not read the file. */
  require(extension: string): void {
    this.use(extension);
    this.required.add(extension);
  }

  /** Appends to one of the JSON's lists and gives the new index. */
  add<
    K extends
      | 'nodes'
      | 'skins'
      | 'meshes'
      | 'materials'
      | 'cameras'
      | 'accessors'
      | 'bufferViews'
      | 'textures'
      | 'images'
      | 'samplers'
      | 'animations',
  >(list: K, item: NonNullable<GltfJson[K]>[number]): number {
    const items = (this.json[list] ??= []) as unknown[];
    items.push(item);
    return items.length - 1;
  }

  view(bytes: Uint8Array, more: Partial<GltfBufferView> = {}): number {
    const byteOffset = this.length;
    this.chunks.push(bytes);
    const padding = align(bytes.length) - bytes.length;
    if (padding > 0) this.chunks.push(new Uint8Array(padding));
    this.length += bytes.length + padding;
    return this.add('bufferViews', { buffer: 0, byteOffset, byteLength: bytes.length, ...more });
  }

  /** Floats in a view of their own; `bounds` adds min and max of the float32 numbers. */
  floats(
    values: readonly number[],
    type: string,
    size: number,
    options: { bounds?: boolean; vertices?: boolean } = {},
  ): number {
    const array = Float32Array.from(values);
    const accessor: GltfAccessor = {
      bufferView: this.view(new Uint8Array(array.buffer), options.vertices ? { target: ARRAY_BUFFER } : {}),
      componentType: FLOAT,
      count: array.length / size,
      type,
    };
    if (options.bounds) {
      accessor.min = extreme(array, size, Math.min);
      accessor.max = extreme(array, size, Math.max);
    }
    return this.add('accessors', accessor);
  }

  /** Triangle indices, short where they fit. */
  indices(values: readonly number[], vertexCount: number): number {
    const short = vertexCount < 65535;
    const array = short ? Uint16Array.from(values) : Uint32Array.from(values);
    return this.add('accessors', {
      bufferView: this.view(new Uint8Array(array.buffer), { target: ELEMENT_ARRAY_BUFFER }),
      componentType: short ? UNSIGNED_SHORT : UNSIGNED_INT,
      count: array.length,
      type: 'SCALAR',
    });
  }

  bytes(values: readonly number[], componentType: number): number {
    const bytes = Uint8Array.from(values);
    return this.add('accessors', {
      bufferView: this.view(bytes),
      componentType,
      count: bytes.length,
      type: 'SCALAR',
    });
  }

  finish(): GltfDocument {
    const bin = new Uint8Array(this.length);
    let at = 0;
    for (const chunk of this.chunks) {
      bin.set(chunk, at);
      at += chunk.length;
    }
    if (bin.length > 0) this.json.buffers = [{ byteLength: bin.length }];
    if (this.used.size > 0) this.json.extensionsUsed = [...this.used].sort();
    if (this.required.size > 0) this.json.extensionsRequired = [...this.required].sort();
    return { json: this.json, bin };
  }
}

function extreme(array: Float32Array, size: number, pick: (a: number, b: number) => number): number[] {
  const found = Array.from(array.subarray(0, size));
  array.forEach((value, i) => (found[i % size] = pick(found[i % size]!, value)));
  return found;
}
