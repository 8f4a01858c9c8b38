import { unzipFiles, type Result } from '@kaizen/core';
import type { ModelBytes } from '../workers/read-api';

export interface NamedBytes {
  /** The file's name, with its folders where it was dropped in one. */
  readonly name: string;
  readonly bytes: Uint8Array;
}

async function bytesOf(files: readonly File[]): Promise<NamedBytes[]> {
  return Promise.all(
    files.map(async (file) => ({
      name: file.webkitRelativePath || file.name,
      bytes: new Uint8Array(await file.arrayBuffer()),
    })),
  );
}

/** Asks for files with the browser's own chooser; none where it was closed. */
export function chooseFiles(accept: string): Promise<NamedBytes[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.multiple = true;
    input.accept = accept;
    input.addEventListener('change', () => resolve(bytesOf([...(input.files ?? [])])));
    input.addEventListener('cancel', () => resolve([]));
    input.click();
  });
}

/** The files of a drop, folders opened. */
export async function droppedFiles(transfer: DataTransfer): Promise<NamedBytes[]> {
  const entries = [...transfer.items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  if (entries.length === 0) return bytesOf([...transfer.files]);
  return (await Promise.all(entries.map((entry) => filesBelow(entry, '')))).flat();
}

async function filesBelow(entry: FileSystemEntry, folder: string): Promise<NamedBytes[]> {
  const name = folder + entry.name;
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) =>
      (entry as FileSystemFileEntry).file(resolve, reject),
    );
    return [{ name, bytes: new Uint8Array(await file.arrayBuffer()) }];
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: NamedBytes[] = [];
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    );
    if (some.length === 0) return found;
    for (const below of some) found.push(...(await filesBelow(below, `${name}/`)));
  }
}

/** The files that a .zip among some stands for, or the files themselves where there is none. */
export function unpacked(files: readonly NamedBytes[]): Result<readonly NamedBytes[]> {
  const zip = files.find(({ name }) => /\.zip$/i.test(name));
  if (!zip) return { ok: true, value: files };
  const read = unzipFiles(zip.bytes);
  if (!read.ok) return read;
  return { ok: true, value: Object.entries(read.value).map(([name, bytes]) => ({ name, bytes })) };
}

/** The model among some files, with the others beside it; null where there is none. */
export function modelAmong(files: readonly NamedBytes[]): ModelBytes | null {
  const model =
    files.find(({ name }) => /\.glb$/i.test(name)) ?? files.find(({ name }) => /\.gltf$/i.test(name));
  if (!model) return null;
  const folder = model.name.slice(0, model.name.lastIndexOf('/') + 1);
  const beside = files.filter((file) => file !== model);
  return { name: model.name.slice(folder.length), bytes: model.bytes, beside, folder };
}

const SOUND_TYPES: Readonly<Record<string, string>> = {
  wav: 'audio/wav',
  mp3: 'audio/mpeg',
  ogg: 'audio/ogg',
};

/** The media type of a sound file by its name, or null where it is none. */
export function soundType(name: string): string | null {
  return SOUND_TYPES[name.slice(name.lastIndexOf('.') + 1).toLowerCase()] ?? null;
}
