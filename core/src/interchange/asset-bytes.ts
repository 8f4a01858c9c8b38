import { sha256 } from '@noble/hashes/sha2.js';
import { strFromU8, strToU8 } from 'fflate';
import { bytesToHex } from '@noble/hashes/utils.js';

/** SHA-256 of bytes, 64 lower-case hexadecimal digits. */
export function sha256Hex(bytes: Uint8Array): string {
  return bytesToHex(sha256(bytes));
}

/** What digests bytes where the platform has it: Web Cryptography. */
interface Digests {
  digest(algorithm: 'SHA-256', bytes: Uint8Array): Promise<ArrayBuffer>;
}

/** The same by the platform, ten times as fast and beside other work; where it has none (a page that is not secure), by itself. */
export async function sha256OfLarge(bytes: Uint8Array): Promise<string> {
  const { subtle } = (globalThis as { readonly crypto?: { readonly subtle?: Digests } }).crypto ?? {};
  return subtle ? bytesToHex(new Uint8Array(await subtle.digest('SHA-256', bytes))) : sha256Hex(bytes);
}

const LETTERS = strToU8('ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/');
const PADDING = '='.charCodeAt(0);
/** What each letter stands for; 64 for what is no letter of base64. */
const DIGITS = new Uint8Array(256).fill(64);
LETTERS.forEach((letter, digit) => (DIGITS[letter] = digit));

/** Bytes as base64 (RFC 4648 §4). The letters are gathered as bytes and made a text at once: a model has millions. */
export function toBase64(bytes: Uint8Array): string {
  const letters = new Uint8Array(Math.ceil(bytes.length / 3) * 4);
  let at = 0;
  for (let i = 0; i < bytes.length; i += 3) {
    const group = (bytes[i]! << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    letters[at++] = LETTERS[group >> 18]!;
    letters[at++] = LETTERS[(group >> 12) & 63]!;
    letters[at++] = i + 1 < bytes.length ? LETTERS[(group >> 6) & 63]! : PADDING;
    letters[at++] = i + 2 < bytes.length ? LETTERS[group & 63]! : PADDING;
  }
  return strFromU8(letters, true);
}

/** The bytes of base64 text, or null where it is not base64. */
export function fromBase64(text: string): Uint8Array | null {
  let { length } = text;
  while (text.charCodeAt(length - 1) === PADDING) length--;
  const bytes = new Uint8Array(Math.floor((length * 3) / 4));
  let group = 0;
  let bits = 0;
  let at = 0;
  for (let i = 0; i < length; i++) {
    const letter = text.charCodeAt(i);
    const digit = letter < 256 ? DIGITS[letter]! : 64;
    if (digit === 64) return null;
    group = (group << 6) | digit;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      bytes[at++] = (group >> bits) & 255;
    }
  }
  return bytes;
}

export function dataUri(type: string, bytes: Uint8Array): string {
  return `data:${type};base64,${toBase64(bytes)}`;
}

/** The bytes of a base64 data URI, or null where it is another kind of URI. */
export function bytesOfUri(uri: string): Uint8Array | null {
  const match = /^data:[^,]*;base64,/.exec(uri);
  return match ? fromBase64(uri.slice(match[0].length)) : null;
}

const EXTENSIONS: Readonly<Record<string, string>> = {
  'model/gltf-binary': 'glb',
  'audio/wav': 'wav',
  'audio/mpeg': 'mp3',
  'audio/ogg': 'ogg',
};

/** The extension of an asset's file by its media type. */
export function extensionOf(type: string): string {
  return EXTENSIONS[type] ?? 'bin';
}
