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
  /** Speed, acceleration and jerk beside each value. */
  readonly rates?: boolean;
  /** Is told, in a sentence each, what can't be said in the format. */
  readonly tell?: (sentence: string) => void;
  /** Is told how far it is, a share from 0 to 1, and waited for. */
  readonly progress?: (share: number) => void | Promise<void>;
}
export type WriteSetting = 'clip' | 'frames' | 'bake' | 'tolerance' | 'rates';

/** A file as it was written, and what is in it in a few words. */
export interface Written {
  readonly content: Uint8Array | string;
  readonly summary: string;
}

/** All there is to say of a format. */
export interface Format {
  readonly id: string;
  /** What it is called where one is chosen. */
  readonly title: string;
  readonly mediaType: string;
  /** It is the whole project, to be opened again as it is. */
  readonly isWhole: boolean;
  /** With the dot; the first one is the usual. */
  readonly extensions: readonly string[];
  /** Whether some bytes are in it, told by how they begin; asked in the order of the registry. */
  readonly isIn?: (bytes: Uint8Array) => boolean;
  readonly read?: (files: ModelFiles) => Promise<Result<Opened>>;
  readonly write?: (project: Project, settings: WriteSettings) => Promise<Result<Written>>;
  /** The settings that mean something to it, and what is said where another one is given. */
  readonly settings: readonly WriteSetting[];
  readonly whyNot: string;
  readonly carries: (project: Project) => Carries;
}

const WHOLE_PROJECT = { isWhole: true, settings: [], carries: projectCarries } as const;
const GLTF = {
  isWhole: false,
  settings: ['clip', 'frames', 'bake', 'tolerance'],
  whyNot: '',
  read: readModel,
  carries: gltfCarries,
} as const;
/** Told once in so many lines, so that telling costs nothing. */
const LINES_A_REPORT = 64;

const json: Format = {
  ...WHOLE_PROJECT,
  id: 'project',
  title: 'Kaizen project',
  mediaType: 'application/json',
  extensions: ['.kaizen.json'],
  whyNot: 'a .kaizen.json, which is the whole project',
  isIn: isProjectText,
  read: ({ bytes }) => asOpened(readProject(strFromU8(bytes))),
  write: (project) => written(writeProject(project), partsOf(project)),
};
const zip: Format = {
  ...WHOLE_PROJECT,
  id: 'project-zip',
  title: 'Kaizen project with its assets',
  mediaType: 'application/zip',
  extensions: ['.kaizen.zip'],
  whyNot: 'a .kaizen.zip, which is the whole project',
  isIn: (bytes) => beginsWith(bytes, 'PK'),
  read: ({ bytes }) => asOpened(readKaizenZip(bytes)),
  write: (project) => written(writeKaizenZip(project), partsOf(project)),
};
const glb: Format = {
  ...GLTF,
  id: 'glb',
  title: 'glTF, one file',
  mediaType: 'model/gltf-binary',
  extensions: ['.glb'],
  isIn: (bytes) => beginsWith(bytes, 'glTF'),
  write: (project, settings) => gltfOf(project, settings, writeGlb),
};
const gltf: Format = {
  ...GLTF,
  id: 'gltf',
  title: 'glTF, as text',
  mediaType: 'model/gltf+json',
  extensions: ['.gltf'],
  isIn: () => true,
  write: (project, settings) => gltfOf(project, settings, writeGltfText),
};
const csv: Format = {
  id: 'csv',
  title: 'CSV',
  mediaType: 'text/csv',
  isWhole: false,
  extensions: ['.csv'],
  settings: ['clip', 'frames', 'rates'],
  whyNot: 'a .csv, which has every frame as it is',
  write: async (project, { clip, frames = { ...project.range, step: 1 }, rates, progress }) => {
    const program = compile(project, clip === undefined ? {} : { clip });
    if (!program.ok) return program;
    const list = frameList(frames.start, frames.end, frames.step);
    const channels = program.value.moving;
    const lines: string[] = [];
    for (const line of csvLines(program.value, { frames: list, channels, rates: rates === true })) {
      lines.push(line);
      if (lines.length % LINES_A_REPORT === 0) await progress?.(lines.length / (list.length + 1));
    }
    return written(lines.join(''), `${list.length} frames, ${channels.length} channels`);
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

function written(content: Uint8Array | string, summary: string): Promise<Result<Written>> {
  return Promise.resolve({ ok: true, value: { content, summary } });
}

function partsOf({ parts }: Project): string {
  return `${parts.length} ${parts.length === 1 ? 'part' : 'parts'}`;
}

function asOpened(read: Result<Project>): Promise<Result<Opened>> {
  return Promise.resolve(read.ok ? { ok: true, value: { project: read.value, report: [] } } : read);
}

async function readModel(files: ModelFiles): Promise<Result<Opened>> {
  const brought = await bringModel(files);
  if (!isBringProblem(brought)) return { ok: true, value: brought };
  return { ok: false, problems: [{ pointer: brought.pointer, message: brought.message }] };
}

async function gltfOf(
  project: Project,
  { clip, frames, bake, tolerance, tell }: WriteSettings,
  contentOf: (document: Extract<ReturnType<typeof exportGltf>, { ok: true }>['value']) => Uint8Array | string,
): Promise<Result<Written>> {
  const made = exportGltf(project, {
    ...(bake === undefined ? {} : { bake }),
    ...(frames === undefined ? {} : { start: frames.start, end: frames.end }),
    ...(clip === undefined ? {} : { clip }),
    ...(tolerance === undefined ? {} : { tolerance }),
    ...(tell === undefined ? {} : { tell }),
  });
  if (!made.ok) return made;
  const { nodes, animations } = made.value.json;
  const channels = animations?.[0]?.channels.length ?? 0;
  return written(contentOf(made.value), `${nodes?.length ?? 0} nodes, ${channels} animated`);
}
