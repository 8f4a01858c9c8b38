import { Inflate, strFromU8 } from 'fflate';

/**
 * A .zip taken apart by its central directory (APPNOTE.TXT 4.3.12), each entry bounded by what it really inflates to and checked
 * against its CRC-32. Encrypted entries, zip64 and methods other than stored and deflated are refused by name.
 */

/** Nothing bigger is unpacked in all, so that a small file cannot fill the memory. */
const MOST_BYTES = 512 * 1024 * 1024;
const MOST_ENTRIES = 65_535;

const END_MARK = 0x06054b50;
const ENTRY_MARK = 0x02014b50;
const LOCAL_MARK = 0x04034b50;
const END_BYTES = 22;
const ENTRY_BYTES = 46;
const LOCAL_BYTES = 30;
const ENCRYPTED = 1;
const UTF_8 = 0x0800;
const STORED = 0;
const DEFLATED = 8;
const ZIP64 = 0xffffffff;

interface Entry {
  readonly name: string;
  readonly flags: number;
  readonly method: number;
  readonly crc: number;
  readonly packed: number;
  readonly size: number;
  readonly at: number;
}

/** The files of a .zip by their names, folders left out. Throws an Error with the reason in words. */
export function unzip(bytes: Uint8Array): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  let left = MOST_BYTES;
  for (const entry of entriesOf(bytes)) {
    if (entry.name.endsWith('/')) continue;
    const contents = contentsOf(bytes, entry, left);
    left -= contents.length;
    files.set(entry.name, contents);
  }
  return files;
}

function entriesOf(bytes: Uint8Array): readonly Entry[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = endOf(view);
  const count = view.getUint16(end + 10, true);
  let at = view.getUint32(end + 16, true);
  if (at === ZIP64 || count === MOST_ENTRIES)
    throw new Error('it is a zip64 archive; pack it as a plain zip');
  const entries: Entry[] = [];
  for (let i = 0; i < count; i++) {
    if (at + ENTRY_BYTES > bytes.length || view.getUint32(at, true) !== ENTRY_MARK)
      throw new Error('its list of files is damaged');
    const nameLength = view.getUint16(at + 28, true);
    const flags = view.getUint16(at + 8, true);
    const nameAt = at + ENTRY_BYTES;
    if (nameAt + nameLength > bytes.length) throw new Error('its list of files is damaged');
    entries.push({
      name: strFromU8(bytes.subarray(nameAt, nameAt + nameLength), (flags & UTF_8) === 0),
      flags,
      method: view.getUint16(at + 10, true),
      crc: view.getUint32(at + 16, true),
      packed: view.getUint32(at + 20, true),
      size: view.getUint32(at + 24, true),
      at: view.getUint32(at + 42, true),
    });
    at = nameAt + nameLength + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
  }
  return entries;
}

/** The place of the end record, which a comment of up to 64 kB may follow. */
function endOf(view: DataView): number {
  const least = Math.max(0, view.byteLength - END_BYTES - 0xffff);
  for (let at = view.byteLength - END_BYTES; at >= least; at--)
    if (view.getUint32(at, true) === END_MARK) return at;
  throw new Error('its end is missing; it is cut off, or no zip');
}

function contentsOf(bytes: Uint8Array, entry: Entry, most: number): Uint8Array {
  const { name, flags, method, crc, packed, size, at } = entry;
  if ((flags & ENCRYPTED) !== 0) throw new Error(`"${name}" is encrypted; pack it without a password`);
  if (packed === ZIP64 || size === ZIP64) throw new Error('it is a zip64 archive; pack it as a plain zip');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (at + LOCAL_BYTES > bytes.length || view.getUint32(at, true) !== LOCAL_MARK)
    throw new Error(`"${name}" is not where its list says; the zip is damaged`);
  const start = at + LOCAL_BYTES + view.getUint16(at + 26, true) + view.getUint16(at + 28, true);
  if (start + packed > bytes.length) throw new Error(`"${name}" is cut off`);
  const raw = bytes.subarray(start, start + packed);
  if (method !== STORED && method !== DEFLATED)
    throw new Error(`"${name}" is packed by method ${method}; only stored and deflated files are read`);
  if (Math.max(size, method === STORED ? packed : 0) > most) throw tooMuch();
  const contents = method === STORED ? raw : inflated(raw, name, size);
  if (contents.length !== size)
    throw new Error(`"${name}" has ${contents.length} bytes and should have ${size}`);
  if (crc32(contents) !== crc) throw new Error(`"${name}" does not have its check sum; the zip is damaged`);
  return contents;
}

function tooMuch(): Error {
  return new Error(`it unpacks to more than ${MOST_BYTES / 1024 / 1024} MB`);
}

/** So much is fed at once, in bytes: what that inflates to, at most 1,032 times as much, is all that goes past a bound. */
const FED = 4096;

/** Inflates, and stops where more comes out than the list of files says. */
function inflated(raw: Uint8Array, name: string, size: number): Uint8Array {
  const out = new Uint8Array(size);
  let length = 0;
  const inflate = new Inflate((chunk) => {
    if (length + chunk.length > size)
      throw new Error(`"${name}" unpacks to more than the ${size} bytes that the zip says`);
    out.set(chunk, length);
    length += chunk.length;
  });
  for (let at = 0; at < raw.length || at === 0; at += FED)
    inflate.push(raw.subarray(at, at + FED), at + FED >= raw.length);
  return out.subarray(0, length);
}

const CRC_TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let crc = n;
  for (let bit = 0; bit < 8; bit++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  return crc >>> 0;
});

/** CRC-32 of bytes (ISO 3309, as zip and PNG use it). */
export function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff;
  for (const byte of bytes) crc = CRC_TABLE[(crc ^ byte) & 255]! ^ (crc >>> 8);
  return (crc ^ 0xffffffff) >>> 0;
}
