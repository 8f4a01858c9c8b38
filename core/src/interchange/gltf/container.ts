import { strFromU8, strToU8 } from 'fflate';
import { toBase64 } from '../asset-bytes';
import type { GltfDocument } from './document';

const MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;
const BIN_CHUNK = 0x004e4942;

/** A binary glTF (GLB, glTF 2.0 §4.4): header, JSON chunk padded with spaces, BIN chunk padded with zeros. */
export function writeGlb({ json, bin }: GltfDocument): Uint8Array {
  const text = strToU8(JSON.stringify(json));
  const jsonLength = align(text.length);
  const binLength = align(bin.length);
  const total = 12 + 8 + jsonLength + (bin.length > 0 ? 8 + binLength : 0);
  const bytes = new Uint8Array(total);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, 2, true);
  view.setUint32(8, total, true);
  view.setUint32(12, jsonLength, true);
  view.setUint32(16, JSON_CHUNK, true);
  bytes.fill(0x20, 20, 20 + jsonLength);
  bytes.set(text, 20);
  if (bin.length > 0) {
    view.setUint32(20 + jsonLength, binLength, true);
    view.setUint32(24 + jsonLength, BIN_CHUNK, true);
    bytes.set(bin, 28 + jsonLength);
  }
  return bytes;
}

/** A glTF as one JSON text, its buffer inside as base64. */
export function writeGltfText({ json, bin }: GltfDocument): string {
  if (bin.length === 0) return JSON.stringify(json);
  const uri = `data:application/octet-stream;base64,${toBase64(bin)}`;
  return JSON.stringify({ ...json, buffers: [{ byteLength: bin.length, uri }] });
}

export function isGlb(bytes: Uint8Array): boolean {
  return bytes.length >= 12 && new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true) === MAGIC;
}

/** Takes a GLB apart. Null, with the reason, where its chunks do not fit. */
export function readGlb(
  bytes: Uint8Array,
): { readonly text: string; readonly bin: Uint8Array } | { readonly reason: string } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(4, true) !== 2)
    return { reason: `it is GLB version ${view.getUint32(4, true)}, and must be version 2` };
  let text: string | null = null;
  let bin: Uint8Array = new Uint8Array(0);
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = view.getUint32(at, true);
    const type = view.getUint32(at + 4, true);
    if (at + 8 + length > bytes.length)
      return { reason: 'a chunk reaches past the end of the file; the file is cut off' };
    const chunk = piece(bytes, at + 8, length);
    if (type === JSON_CHUNK && text === null) text = strFromU8(chunk);
    else if (type === BIN_CHUNK && bin.length === 0) bin = chunk;
    at += 8 + align(length);
  }
  return text === null ? { reason: 'it has no JSON chunk' } : { text, bin };
}

/** Whether a GLB is a header, its JSON and its binary chunk, and nothing else: such a file every reader takes as it is. */
export function isTidyGlb(bytes: Uint8Array): boolean {
  if (!isGlb(bytes) || bytes.length < 28) return false;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const second = 20 + align(view.getUint32(12, true));
  return (
    view.getUint32(8, true) === bytes.length &&
    view.getUint32(16, true) === JSON_CHUNK &&
    second + 8 <= bytes.length &&
    view.getUint32(second + 4, true) === BIN_CHUNK &&
    second + 8 + view.getUint32(second, true) === bytes.length
  );
}

/** A piece of some bytes, not copied where numbers of four bytes can be read from it as it lies. */
function piece(bytes: Uint8Array, start: number, length: number): Uint8Array {
  const isAligned = (bytes.byteOffset + start) % 4 === 0;
  return isAligned ? bytes.subarray(start, start + length) : bytes.slice(start, start + length);
}

export function align(length: number): number {
  return Math.ceil(length / 4) * 4;
}
