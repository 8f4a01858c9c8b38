import { closeSync, fsyncSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs';
import { basename, dirname, join, resolve, sep } from 'node:path';
import {
  bringModel,
  compile,
  isBringProblem,
  readKaizenZip,
  readProject,
  type CompileOptions,
  type Problem,
  type Program,
  type Project,
  type Result,
} from '@kaizen/core';
import { FileError, UsageError } from './arguments';

export const READ_FORMATS = ['.kaizen.json', '.kaizen.zip', '.glb', '.gltf'] as const;
export const WRITE_FORMATS = ['.kaizen.json', '.kaizen.zip', '.glb', '.gltf', '.csv'] as const;
/** In the contract, not yet written by this version. */
const LATER_FORMATS = ['.dae', '.usda'];

/** The known extension of a file name, of those given. */
export function formatOf<T extends string>(file: string, known: readonly T[]): T {
  const name = basename(file).toLowerCase();
  const found = known.find((extension) => name.endsWith(extension));
  if (found) return found;
  if (LATER_FORMATS.some((extension) => name.endsWith(extension))) {
    throw new UsageError(
      `${file}: this Kaizen does not read or write that format yet; take ${known.join(', ')}`,
    );
  }
  throw new UsageError(`${file}: the extension is not known; it must be one of ${known.join(', ')}`);
}

function readBytes(file: string): Uint8Array {
  try {
    return readFileSync(file);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    const why =
      code === 'ENOENT'
        ? 'there is no such file'
        : code === 'EISDIR'
          ? 'this is a folder'
          : String(code ?? error);
    throw new FileError(`${file}: ${why}; give the path of a project`);
  }
}

/** Reads a project of any format. Problems come back as they are found, with JSON pointers. */
export function readAny(file: string): Result<Project> {
  const format = formatOf(file, READ_FORMATS);
  const bytes = readBytes(file);
  switch (format) {
    case '.kaizen.json':
      return readProject(new TextDecoder().decode(bytes));
    case '.kaizen.zip':
      return readKaizenZip(bytes);
    case '.glb':
    case '.gltf': {
      const brought = bringModel({ name: basename(file), bytes, beside: besideReader(file) });
      return isBringProblem(brought)
        ? { ok: false, problems: [{ pointer: brought.pointer, message: brought.message }] }
        : { ok: true, value: brought.project };
    }
  }
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
  if (!first) return file;
  const rest = more.length === 0 ? '' : ` (and ${more.length} more: kaizen validate ${file})`;
  return `${file}: ${first.pointer === '' ? '' : first.pointer + ': '}${first.message}${rest}`.replaceAll(
    /[\r\n]+/g,
    ' ',
  );
}

export function readOrFail(file: string): Project {
  const read = readAny(file);
  if (!read.ok) throw new FileError(oneLine(file, read.problems));
  return read.value;
}

export function compileOrFail(file: string, project: Project, options: CompileOptions): Program {
  if (options.clip !== undefined && !project.clips.some((clip) => clip.id === options.clip)) {
    throw new UsageError(
      `${file} has no clip "${options.clip}"; it has ${project.clips.map((clip) => clip.id).join(', ') || 'none'}`,
    );
  }
  const compiled = compile(project, options);
  if (!compiled.ok) throw new FileError(oneLine(file, compiled.problems));
  return compiled.value;
}

/** Writes beside the target and renames, so that no half-written file is ever left under its name. */
export function writeWhole(file: string, contents: Uint8Array | string): void {
  const beside = join(dirname(file), `.${basename(file)}.${process.pid}.part`);
  try {
    const handle = openSync(beside, 'w');
    try {
      const bytes = typeof contents === 'string' ? Buffer.from(contents) : contents;
      for (let at = 0; at < bytes.length;) at += writeSync(handle, bytes, at);
      fsyncSync(handle);
    } finally {
      closeSync(handle);
    }
    renameSync(beside, file);
  } catch (error) {
    rmSync(beside, { force: true });
    const reason = error instanceof Error ? error.message : String(error);
    throw new FileError(`${file}: it could not be written (${reason}); nothing was left there`);
  }
}
