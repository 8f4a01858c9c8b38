import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** SHA-256 of bytes, 64 lower-case hexadecimal digits. */
export function sha256Hex(bytes: Uint8Array): string {
  return bytesToHex(sha256(bytes));
}

const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const DIGITS = new Map([...ALPHABET].map((letter, i) => [letter.charCodeAt(0), i]));

/** Bytes as base64 (RFC 4648 §4), in pieces, so that big files do not overflow the stack. */
export function toBase64(bytes: Uint8Array): string {
  const pieces: string[] = [];
  let text = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const group = (bytes[i]! << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    text += ALPHABET[group >> 18]! + ALPHABET[(group >> 12) & 63]!;
    text += i + 1 < bytes.length ? ALPHABET[(group >> 6) & 63]! : '=';
    text += i + 2 < bytes.length ? ALPHABET[group & 63]! : '=';
    if (text.length > 8192) {
      pieces.push(text);
      text = '';
    }
  }
  return pieces.join('') + text;
}

/** The bytes of base64 text, or null where it is not base64. */
export function fromBase64(text: string): Uint8Array | null {
  const trimmed = text.replace(/=+$/, '');
  const bytes = new Uint8Array(Math.floor((trimmed.length * 3) / 4));
  let group = 0;
  let bits = 0;
  let at = 0;
  for (let i = 0; i < trimmed.length; i++) {
    const digit = DIGITS.get(trimmed.charCodeAt(i));
    if (digit === undefined) return null;
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
