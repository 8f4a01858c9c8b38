import {
  closeSync,
  fstatSync,
  fsyncSync,
  lstatSync,
  openSync,
  readFileSync,
  readlinkSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { basename, dirname, join, resolve, sep } from 'node:path';
import {
  compile,
  extensionsThat,
  formatNamed,
  formatOfBytes,
  type CompileOptions,
  type Format,
  type Opened,
  type Problem,
  type Program,
  type Project,
  type Result,
} from '@kaizen/core';
import { FileError, UsageError } from './arguments';
import type { Io } from './command';

/** In the contract, not yet written by this version. */
const LATER_FORMATS = ['.dae', '.usda'];

/** The format of a file by its extension. */
export function formatOf(file: string, way: 'read' | 'write'): Format {
  const found = formatNamed(basename(file), way);
  if (found) return found;
  const known = extensionsThat(way).join(', ');
  if (LATER_FORMATS.some((extension) => file.toLowerCase().endsWith(extension)))
    throw new UsageError(`${file}: this Kaizen does not read or write that format yet; take ${known}`);
  throw new UsageError(`${file}: the extension is not known; it must be one of ${known}`);
}

/** Stands for standard input or output in the place of a file. */
export const STREAM = '-';

function readBytes(file: string, io: Io): Uint8Array {
  try {
    return file === STREAM ? io.input() : readFileSync(file);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    const why =
      code === 'ENOENT'
        ? 'there is no such file'
        : code === 'EISDIR'
          ? 'this is a folder'
          : code === 'EACCES'
            ? 'it may not be read'
            : String(code ?? error);
    throw new FileError(`${nameOf(file)}: ${why}; give the path of a project`);
  }
}

/** How a file is called in messages. */
export function nameOf(file: string): string {
  return file === STREAM ? 'standard input' : file;
}

/** Reads a project of any format. Problems come back as they are found, with JSON pointers. */
export async function readAny(file: string, io: Io): Promise<Result<Opened>> {
  const known = file === STREAM ? null : formatOf(file, 'read');
  const bytes = readBytes(file, io);
  const format = known ?? formatOfBytes(bytes);
  return format.read!({ name: basename(file), bytes, beside: besideReader(file) });
}

/** Files that a .gltf names, from its own folder and below it only. */
function besideReader(file: string): (path: string) => Uint8Array | null {
  const folder = resolve(dirname(file));
  return (path) => {
    const target = resolve(folder, path);
    if (!target.startsWith(folder + sep)) return null;
    try {
      return readFileSync(target);
    } catch {
      return null;
    }
  };
}

export function oneLine(file: string, problems: readonly Problem[]): string {
  const [first, ...more] = problems;
  if (!first) return nameOf(file);
  const rest = more.length === 0 ? '' : ` (and ${more.length} more: kaizen validate)`;
  return `${nameOf(file)}: ${first.pointer === '' ? '' : first.pointer + ': '}${first.message}${rest}`;
}

export async function readOrFail(file: string, io: Io): Promise<Opened> {
  const read = await readAny(file, io);
  if (!read.ok) throw new FileError(oneLine(file, read.problems));
  return read.value;
}

export function compileOrFail(file: string, project: Project, options: CompileOptions): Program {
  if (options.clip !== undefined && !project.clips.some((clip) => clip.id === options.clip)) {
    throw new UsageError(
      `${nameOf(file)} has no clip "${options.clip}"; it has ${project.clips.map((clip) => clip.id).join(', ') || 'none'}`,
    );
  }
  const compiled = compile(project, options);
  if (!compiled.ok) throw new FileError(oneLine(file, compiled.problems));
  return compiled.value;
}

/**
 * Writes beside the target and renames, so that no half-written file is ever left under its name. A link stays a link: what it
 * leads to is replaced. What is no plain file, such as a device or a pipe, is written to as it is.
 */
export function writeWhole(file: string, contents: Uint8Array | string): void {
  const bytes = typeof contents === 'string' ? Buffer.from(contents) : contents;
  try {
    const target = linkTarget(file);
    const there = statSync(target, { throwIfNoEntry: false });
    if (there && !there.isFile() && !there.isDirectory()) {
      writeInto(target, 'w', bytes);
      return;
    }
    const beside = join(dirname(target), `.${basename(target)}.${process.pid}.part`);
    try {
      writeInto(beside, 'w', bytes, there?.mode);
      renameSync(beside, target);
    } catch (error) {
      rmSync(beside, { force: true });
      throw error;
    }
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    throw new FileError(`${file}: it could not be written (${reason}); nothing was left there`);
  }
}

function writeInto(path: string, flag: string, bytes: Uint8Array, mode?: number): void {
  const handle = openSync(path, flag, mode);
  try {
    for (let at = 0; at < bytes.length;) at += writeSync(handle, bytes, at);
    if (fstatSync(handle).isFile()) fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

const MOST_LINKS = 40;

/** Where a path leads through links, also where nothing is there yet. */
function linkTarget(file: string): string {
  let path = resolve(file);
  for (let i = 0; i < MOST_LINKS; i++) {
    if (!lstatSync(path, { throwIfNoEntry: false })?.isSymbolicLink()) return path;
    path = resolve(dirname(path), readlinkSync(path));
  }
  throw new Error('its links lead in a ring');
}
