import {
  bytesOfUri,
  dataUri,
  hashNamed,
  namedUri,
  pictureType,
  sha256Hex,
  type Asset,
  type AssetBytes,
} from '@kaizen/core';
import type { Piece } from './pieces';

/**
 * Bytes out of pieces: a model, a sound or a picture stands in its piece by its hash, and in the storage as
 * bytes by their SHA-256, with `{blob, type}` in their place. So a model is written once, not with every change of its name.
 */
interface Stowed {
  readonly blob: string;
  readonly type: string;
}

const FIELDS: Readonly<Record<string, string>> = { assets: 'uri', poses: 'picture' };

function fieldOf(key: string): string | undefined {
  return FIELDS[key.slice(0, key.indexOf(':'))];
}

/** Whether a piece of this key may have bytes beside it. */
export function mayHaveBlob(key: string): boolean {
  return fieldOf(key) !== undefined;
}

const stowedTexts = new WeakMap<object, { readonly piece: object; readonly blob: [string, Uint8Array] }>();

/**
 * A piece as it is stored, and the bytes beside it, from `bytes` where the piece names them. A text that its bytes would not give
 * back letter by letter stays as it is.
 */
export function stow(
  { key, value }: Piece,
  bytes: AssetBytes,
): { value: unknown; blob?: readonly [string, Uint8Array] } {
  const field = fieldOf(key);
  if (field === undefined || typeof value !== 'object' || value === null) return { value };
  const done = stowedTexts.get(value);
  if (done) return { value: done.piece, blob: done.blob };
  const text = (value as Record<string, unknown>)[field];
  const hash = typeof text === 'string' ? hashNamed(text) : null;
  if (hash !== null) {
    const type = pictureType(text as string) ?? (value as Asset).type;
    const named = { blob: hash, type } satisfies Stowed;
    const own = bytes.get(hash);
    return { value: { ...value, [field]: named }, ...(own ? { blob: [hash, own] } : {}) };
  }
  const type = typeof text === 'string' ? /^data:([^;,]+);base64,/.exec(text)?.[1] : undefined;
  const own = type === undefined ? null : bytesOfUri(text as string);
  if (!own || dataUri(type!, own) !== text) return { value };
  const blob = sha256Hex(own);
  const piece = { ...value, [field]: { blob, type: type! } satisfies Stowed };
  stowedTexts.set(value, { piece, blob: [blob, own] });
  return { value: piece, blob: [blob, own] };
}

/** The hash of the bytes that a stored piece names, if it names any. */
export function blobNamed(key: string, value: unknown): string | undefined {
  const field = fieldOf(key);
  const stored = field === undefined ? undefined : (value as Record<string, unknown>)[field];
  return isStowed(stored) ? stored.blob : undefined;
}

/**
 * A piece as the project has it, from what is stored: its bytes go into `beside`, and the piece names them. Undefined where
 * they should stand in it and are gone.
 */
export function unstow(
  key: string,
  value: unknown,
  blobs: AssetBytes,
  beside: Map<string, Uint8Array>,
): unknown {
  const field = fieldOf(key);
  if (field === undefined) return value;
  const stored = (value as Record<string, unknown>)[field];
  if (!isStowed(stored)) return value;
  const bytes = blobs.get(stored.blob);
  const isPicture = field === 'picture';
  if (isPicture || stored.type === (value as Asset).type) {
    if (bytes) beside.set(stored.blob, bytes);
    return { ...(value as object), [field]: namedUri(stored.blob, isPicture ? stored.type : undefined) };
  }
  return bytes ? { ...(value as object), [field]: dataUri(stored.type, bytes) } : undefined;
}

function isStowed(value: unknown): value is Stowed {
  return typeof value === 'object' && value !== null && 'blob' in value;
}
