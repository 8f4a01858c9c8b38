import { fromBase64 } from '../asset-bytes';
import { align } from './container';
import type { GltfBufferView, GltfDocument, GltfJson } from './document';
import { MESHOPT } from './mesh-decoders';
import { isCount, MOST_MODEL_BYTES } from './model-checks';
import { gltfProblem } from './model-problem';

/** Puts all buffers, and images kept in files, into one binary chunk. */
export function joinBuffers(
  json: GltfJson,
  bin: Uint8Array,
  beside: (path: string) => Uint8Array | null,
): GltfDocument {
  const chunks: Uint8Array[] = [];
  let length = 0;
  const append = (bytes: Uint8Array): number => {
    const at = length;
    const padded = align(bytes.length);
    chunks.push(bytes);
    length += padded;
    if (length > MOST_MODEL_BYTES)
      throw gltfProblem('/buffers', 'its buffers are more than 512 MB; they must be smaller');
    return at;
  };
  const starts = (json.buffers ?? []).map((buffer, i) => {
    const pointer = `/buffers/${i}`;
    if (isStandIn(buffer)) return { start: append(new Uint8Array(0)), length: buffer.byteLength };
    const bytes =
      buffer.uri === undefined && i === 0 ? bin : resourceBytes(String(buffer.uri), pointer, beside);
    if (!isCount(buffer.byteLength) || bytes.length < buffer.byteLength) {
      throw gltfProblem(
        pointer,
        `it says ${String(buffer.byteLength)} bytes, and there are ${bytes.length}; the file is cut off or a part is missing`,
      );
    }
    return { start: append(bytes), length: buffer.byteLength };
  });
  const bufferViews = (json.bufferViews ?? []).map((view, i) => {
    const buffer = starts[view.buffer];
    const { byteOffset = 0, byteLength } = view;
    if (!buffer || !isCount(byteOffset) || !isCount(byteLength) || byteOffset + byteLength > buffer.length) {
      throw gltfProblem(`/bufferViews/${i}`, 'it reaches outside its buffer; the file is damaged');
    }
    const at = { ...view, buffer: 0, byteOffset: buffer.start + byteOffset };
    return view.extensions?.[MESHOPT] ? withPackedBytes(at, starts, i) : at;
  });
  const images = json.images?.map((image, i) => {
    if (image.uri === undefined) return image;
    const { uri, ...rest } = image;
    const bytes = resourceBytes(uri, `/images/${i}`, beside);
    bufferViews.push({ buffer: 0, byteOffset: append(bytes), byteLength: bytes.length });
    return { ...rest, bufferView: bufferViews.length - 1, mimeType: image.mimeType ?? imageType(bytes) };
  });
  return {
    json: {
      ...json,
      ...(json.bufferViews || bufferViews.length > 0 ? { bufferViews } : {}),
      ...(images ? { images } : {}),
      ...(length > 0 ? { buffers: [{ byteLength: length }] } : {}),
    },
    bin: joined(chunks, length),
  };
}

/** Pieces after each other, each padded to four bytes; one that fits already is taken as it lies. */
function joined(pieces: readonly Uint8Array[], length: number): Uint8Array {
  const [first] = pieces;
  if (first && pieces.length === 1 && first.length === length && first.byteOffset % 4 === 0) return first;
  const all = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += align(piece.length);
  }
  return all;
}

/** A buffer that is only there to be named by views whose bytes are packed elsewhere. */
function isStandIn(buffer: NonNullable<GltfJson['buffers']>[number]): boolean {
  const packing = buffer.extensions?.[MESHOPT] as { fallback?: boolean } | undefined;
  return packing?.fallback === true && buffer.uri === undefined && isCount(buffer.byteLength);
}

/** A packed view, told where its packed bytes lie now. */
function withPackedBytes(
  view: GltfBufferView,
  starts: readonly { readonly start: number; readonly length: number }[],
  i: number,
): GltfBufferView {
  const packing = view.extensions![MESHOPT] as { buffer: number; byteOffset?: unknown; byteLength: unknown };
  const source = starts[packing.buffer];
  const { byteOffset = 0, byteLength } = packing;
  if (!source || !isCount(byteOffset) || !isCount(byteLength) || byteOffset + byteLength > source.length)
    throw gltfProblem(
      `/bufferViews/${i}/extensions/${MESHOPT}`,
      'it reaches outside its buffer; the file is damaged',
    );
  const moved = { ...packing, buffer: 0, byteOffset: source.start + byteOffset };
  return { ...view, extensions: { ...view.extensions, [MESHOPT]: moved } };
}

function imageType(bytes: Uint8Array): string {
  return bytes[0] === 0xff && bytes[1] === 0xd8 ? 'image/jpeg' : 'image/png';
}

function resourceBytes(
  uri: string,
  pointer: string,
  beside: (path: string) => Uint8Array | null,
): Uint8Array {
  const base64 = /^data:[^,]*;base64,/.exec(uri);
  if (base64) {
    const bytes = fromBase64(uri.slice(base64[0].length));
    if (!bytes) throw gltfProblem(pointer, 'its data URI is not base64; the file is damaged');
    return bytes;
  }
  const path = safePath(uri);
  if (path === null) {
    throw gltfProblem(
      pointer,
      `it names "${uri.slice(0, 80)}", which is outside the model's folder; files must lie beside or below the model`,
    );
  }
  const bytes = beside(path);
  if (!bytes)
    throw gltfProblem(
      pointer,
      `it needs the file "${path}", which was not given; drop it together with the model`,
    );
  return bytes;
}

/** A relative path with its dots resolved, or null where it is absolute, has a scheme, or climbs out. */
export function safePath(uri: string): string | null {
  let decoded: string;
  try {
    decoded = decodeURIComponent(uri);
  } catch {
    return null;
  }
  if (
    /^[A-Za-z][A-Za-z0-9+.-]*:/.test(decoded) ||
    /^[\\/]/.test(decoded) ||
    decoded.includes('\\') ||
    decoded.includes('\0')
  )
    return null;
  const steps: string[] = [];
  for (const step of decoded.split('/')) {
    if (step === '..') {
      if (steps.pop() === undefined) return null;
    } else if (step !== '.' && step !== '') {
      steps.push(step);
    }
  }
  return steps.length > 0 ? steps.join('/') : null;
}
