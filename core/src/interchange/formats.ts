import { strFromU8 } from 'fflate';
import { activeClip, type Project, type Result } from '../project';
import { parseDocument, readProject, writeProject } from '../file';
import { compile } from '../evaluate';
import { csvCarries, gltfCarries, projectCarries, type Carries } from './carries';
import { csvLines, frameList } from './csv/write-csv';
import { bringModel, exportGltf, isBringProblem, writeGlb, writeGltfText, type ModelFiles } from './gltf';
import { readKaizenZip, writeKaizenZip } from './kaizen-zip';

/** A project as it was read, and what of the file was not taken over, in plain sentences. */
export interface Opened {
  readonly project: Project;
  readonly report: readonly string[];
}

/** What is asked for when a project is written; a format says which of it means something to it. */
export interface WriteSettings {
  readonly clip?: string;
  readonly frames?: { readonly start: number; readonly end: number; readonly step: number };
  readonly bake?: boolean;
  readonly tolerance?: number;
  /** Is told, in a sentence each, what can't be said in the format. */
  readonly tell?: (sentence: string) => void;
}
export type WriteSetting = 'clip' | 'frames' | 'bake' | 'tolerance';

/** All there is to say of a format. */
export interface Format {
  readonly id: string;
  /** With the dot; the first one is the usual. */
  readonly extensions: readonly string[];
  /** Whether some bytes are in it, told by how they begin; asked in the order of the registry. */
  readonly isIn?: (bytes: Uint8Array) => boolean;
  readonly read?: (files: ModelFiles) => Promise<Result<Opened>>;
  readonly write?: (project: Project, settings: WriteSettings) => Result<Uint8Array | string>;
  /** The settings that mean something to it, and what is said where another one is given. */
  readonly settings: readonly WriteSetting[];
  readonly whyNot: string;
  readonly carries: (project: Project) => Carries;
}

const WHOLE_PROJECT = { settings: [], carries: projectCarries } as const;
const ALL_SETTINGS = ['clip', 'frames', 'bake', 'tolerance'] as const;

const json: Format = {
  ...WHOLE_PROJECT,
  id: 'project',
  extensions: ['.kaizen.json'],
  whyNot: 'a .kaizen.json, which is the whole project',
  isIn: isProjectText,
  read: ({ bytes }) => asOpened(readProject(strFromU8(bytes))),
  write: (project) => ({ ok: true, value: writeProject(project) }),
};
const zip: Format = {
  ...WHOLE_PROJECT,
  id: 'project-zip',
  extensions: ['.kaizen.zip'],
  whyNot: 'a .kaizen.zip, which is the whole project',
  isIn: (bytes) => beginsWith(bytes, 'PK'),
  read: ({ bytes }) => asOpened(readKaizenZip(bytes)),
  write: (project) => ({ ok: true, value: writeKaizenZip(project) }),
};
const glb: Format = {
  id: 'glb',
  extensions: ['.glb'],
  settings: ALL_SETTINGS,
  whyNot: '',
  isIn: (bytes) => beginsWith(bytes, 'glTF'),
  read: readModel,
  write: (project, settings) => gltfOf(project, settings, writeGlb),
  carries: gltfCarries,
};
const gltf: Format = {
  id: 'gltf',
  extensions: ['.gltf'],
  settings: ALL_SETTINGS,
  whyNot: '',
  isIn: () => true,
  read: readModel,
  write: (project, settings) => gltfOf(project, settings, writeGltfText),
  carries: gltfCarries,
};
const csv: Format = {
  id: 'csv',
  extensions: ['.csv'],
  settings: ['clip', 'frames'],
  whyNot: 'a .csv, which has every frame as it is',
  write: (project, { clip, frames = { ...project.range, step: 1 } }) => {
    const program = compile(project, clip === undefined ? {} : { clip });
    if (!program.ok) return program;
    const list = frameList(frames.start, frames.end, frames.step);
    const lines = csvLines(program.value, { frames: list, channels: program.value.moving });
    return { ok: true, value: [...lines].join('') };
  },
  carries: (project) => {
    const program = compile(project);
    const channels = program.ok ? program.value.moving.length : (activeClip(project)?.curves.length ?? 0);
    return csvCarries(project, frameList(project.range.start, project.range.end).length, channels);
  },
};

/** The formats, in the order in which bytes without a name are looked at. One line a format. */
export const FORMATS: readonly Format[] = [glb, zip, json, gltf, csv];

/** The extensions that can be read, or written. */
export function extensionsThat(way: 'read' | 'write'): readonly string[] {
  return [json, zip, glb, gltf, csv].flatMap((format) => (format[way] ? format.extensions : []));
}

/** The format of a file's name by its extension, or of an extension, the dot left out or not. */
export function formatNamed(name: string, way: 'read' | 'write'): Format | undefined {
  const lower = name.toLowerCase();
  return FORMATS.find(
    (format) =>
      format[way] &&
      format.extensions.some((extension) => lower.endsWith(extension) || `.${lower}` === extension),
  );
}

/** The format of bytes that have no name. */
export function formatOfBytes(bytes: Uint8Array): Format {
  return FORMATS.find(({ isIn }) => isIn?.(bytes)) ?? gltf;
}

/** A glTF that Kaizen wrote has a whole project in it: only what the outermost object says counts. */
function isProjectText(bytes: Uint8Array): boolean {
  const parsed = parseDocument(strFromU8(bytes));
  const value = parsed.ok ? parsed.value : null;
  return typeof value === 'object' && value !== null && (value as { format?: unknown }).format === 'kaizen';
}

function beginsWith(bytes: Uint8Array, mark: string): boolean {
  return String.fromCharCode(...bytes.subarray(0, mark.length)) === mark;
}

function asOpened(read: Result<Project>): Promise<Result<Opened>> {
  return Promise.resolve(read.ok ? { ok: true, value: { project: read.value, report: [] } } : read);
}

async function readModel(files: ModelFiles): Promise<Result<Opened>> {
  const brought = await bringModel(files);
  if (!isBringProblem(brought)) return { ok: true, value: brought };
  return { ok: false, problems: [{ pointer: brought.pointer, message: brought.message }] };
}

function gltfOf(
  project: Project,
  { clip, frames, bake, tolerance, tell }: WriteSettings,
  written: (document: Extract<ReturnType<typeof exportGltf>, { ok: true }>['value']) => Uint8Array | string,
): Result<Uint8Array | string> {
  const made = exportGltf(project, {
    ...(bake === undefined ? {} : { bake }),
    ...(frames === undefined ? {} : { start: frames.start, end: frames.end }),
    ...(clip === undefined ? {} : { clip }),
    ...(tolerance === undefined ? {} : { tolerance }),
    ...(tell === undefined ? {} : { tell }),
  });
  return made.ok ? { ok: true, value: written(made.value) } : made;
}
