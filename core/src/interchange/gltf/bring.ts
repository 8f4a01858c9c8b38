import {
  framesPerSecond,
  plainSentence,
  rateOf,
  type Asset,
  type Clip,
  type Part,
  type Project,
  type Rate,
} from '../../project';
import { readDocument, referenceProblems } from '../../file';
import { dataUri, sha256OfLarge } from '../asset-bytes';
import { namedUri, type AssetBytes } from '../assets-beside';
import { isTidyGlb, writeGlb } from './container';
import { gltfDigest } from './digest';
import type { GltfDocument, GltfJson } from './document';
import { isModelError, type ModelProblem } from './model-problem';
import { readMotions } from './motions/read-motions';
import { partsOfNodes } from './node-parts';
import { plural, slug } from './model-words';
import { openModel, type ModelFiles } from './open-model';

/** A model opened: a project, and what of the file was not taken over, in plain sentences. */
export interface Brought {
  readonly project: Project;
  readonly report: readonly string[];
  /** The model's bytes by their sha256, where they were asked for beside the project. */
  readonly bytes?: AssetBytes;
}

export function isBringProblem(result: Brought | ModelProblem): result is ModelProblem {
  return 'problem' in result;
}

const GLB = 'model/gltf-binary';

/**
 * Opens a GLB or glTF as a project: every node a part, the model kept once by its hash. A file that Kaizen wrote and
 * nobody changed comes back as the very project (contract §10). Files that are broken or hostile give one problem.
 */
export async function bringModel(files: ModelFiles): Promise<Brought | ModelProblem> {
  try {
    const packings: string[] = [];
    // A file that can be kept as it came is hashed while it is looked through.
    const hash = isTidyGlb(files.bytes) ? hashOf(files) : null;
    const document = await openModel(files, (packing) => packings.push(packing));
    files.progress?.(0.3);
    const own = ownProject(document);
    if (own) return own;
    const brought = await bringForeign(files, document, packings, hash);
    files.progress?.(0.9);
    const [problem] = referenceProblems(brought.project);
    return problem ? problemOf(problem.pointer, problem.message) : brought;
  } catch (error) {
    if (isModelError(error)) return problemOf(error.pointer, error.message);
    if (error instanceof RangeError || error instanceof TypeError)
      return problemOf('', `it does not hold together as glTF (${error.message}); export it again`);
    throw error;
  }
}

function hashOf({ bytes, sha256 }: ModelFiles): Promise<string> {
  return sha256 ? sha256().catch(() => sha256OfLarge(bytes)) : sha256OfLarge(bytes);
}

/** A problem in a sentence that shows nothing raw of the file. */
function problemOf(pointer: string, message: string): ModelProblem {
  return { problem: true, pointer: plainSentence(pointer), message: plainSentence(message) };
}

function ownProject(document: GltfDocument): Brought | null {
  const own = document.json.asset.extras?.kaizen as { digest?: unknown; project?: unknown } | undefined;
  if (!own || own.digest !== gltfDigest(document)) return null;
  const read = readDocument(own.project);
  return read.ok ? { project: read.value, report: [] } : null;
}

async function bringForeign(
  { name: fileName, bytes, progress, bytesBeside: beside }: ModelFiles,
  document: GltfDocument,
  packings: readonly string[],
  hash: Promise<string> | null,
): Promise<Brought> {
  const { json } = document;
  const name = fileName.replace(/\.(glb|gltf)$/i, '') || 'Model';
  const isKept = hash !== null && document.bin.buffer === bytes.buffer;
  const glb = isKept ? bytes : writeGlb(document);
  const sha256 = await (isKept ? hash : sha256OfLarge(glb));
  progress?.(0.5);
  const asset: Asset = {
    id: `model-${sha256.slice(0, 8)}`,
    name: fileName,
    type: GLB,
    sha256,
    uri: beside ? namedUri(sha256) : dataUri(GLB, glb),
  };
  progress?.(0.6);
  const report = packings.map((name) => `its meshes were packed with ${name} and are kept unpacked`);
  if (json.asset.extras?.kaizen !== undefined)
    report.push(
      'it was written by Kaizen and changed elsewhere since: what the file shows now is read, the project that it was written from is left out',
    );
  const { parts, clips, rate, range } = await withMotions(
    document,
    partsOfNodes(json, asset.id, report),
    report,
  );
  report.push(...notShown(json));
  const project: Project = {
    format: 'kaizen',
    version: 1,
    edition: 1,
    id: `${slug(name)}-${sha256.slice(0, 6)}`,
    name,
    rate,
    range,
    gravity: 9.81,
    floor: 0,
    parts,
    clips,
    activeClip: clips[0]!.id,
    arrangement: [],
    drivers: [],
    constraints: [],
    interlocks: [],
    assets: parts.some((part) => part.kind === 'mesh')
      ? [report.length > 0 ? { ...asset, report } : asset]
      : [],
    markers: [],
    sounds: [],
    poses: [],
  };
  return beside ? { project, report, bytes: new Map([[sha256, glb]]) } : { project, report };
}

interface WithMotions extends Pick<Project, 'parts' | 'clips' | 'rate' | 'range'> {
  readonly parts: Part[];
}

/** Parts with the file's animations as clips; where it has none, with an empty clip. */
async function withMotions(document: GltfDocument, parts: Part[], report: string[]): Promise<WithMotions> {
  const { json } = document;
  const own = timeOfKaizen(json);
  const range = { start: own?.start ?? 0, end: (own?.start ?? 0) + 120, loop: false };
  const still: readonly Clip[] = [{ id: 'main', name: 'Main', curves: [] }];
  if (!json.animations?.length)
    return { parts, clips: still, rate: own?.rate ?? { frames: 24, per: 1 }, range };
  const read = await readMotions(document, parts, own ? framesPerSecond(own.rate) : null, range.start);
  report.push(`${plural(json.animations.length, 'animation')} read as clips`, ...read.report);
  return {
    parts: [...read.parts],
    clips: read.clips,
    rate: own?.rate ?? rateOf(read.framesPerSecond),
    range: { ...range, end: Math.max(range.start + 1, Math.ceil(read.last)) },
  };
}

/** The rate and first frame that a file which Kaizen wrote says; null in files from elsewhere. */
function timeOfKaizen(json: GltfJson): { readonly rate: Rate; readonly start: number } | null {
  const own = json.asset.extras?.kaizen as { project?: unknown } | undefined;
  const read = own?.project === undefined ? null : readDocument(own.project);
  return read?.ok ? { rate: read.value.rate, start: read.value.range.start } : null;
}

/** Extensions of materials that the view does not show; hand-over carries them as they are. */
const SHOWN_OF_MATERIALS: ReadonlySet<string> = new Set(['KHR_materials_unlit', 'KHR_texture_transform']);

function notShown(json: GltfJson): string[] {
  const names = new Set((json.materials ?? []).flatMap(({ extensions }) => Object.keys(extensions ?? {})));
  const unseen = [...names].filter((name) => !SHOWN_OF_MATERIALS.has(name)).sort();
  return unseen.length === 0
    ? []
    : [`${unseen.join(', ')} of its materials not shown here, kept for handing over`];
}
