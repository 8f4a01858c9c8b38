import { transfer } from 'comlink';
import {
  assetsBeside,
  bringModel,
  checkReferences,
  documentPieces,
  hasRightHead,
  isBringProblem,
  parseJson,
  readProject,
  stripDefaults,
  unpackKaizenZip,
  type AssetBytes,
  type DocumentPiece,
  type PieceToCut,
  type Problem,
  type Project,
  type Result,
} from '@kaizen/core';
import type { ModelRead, ProjectRead, ReadApi } from './read-api';

type Fields = Readonly<Record<string, unknown>>;

/** What the reading worker does. */
export const readWork: ReadApi = {
  project(bytes, kind, piece, progress): ProjectRead {
    const read = kind === 'zip' ? fromZip(bytes) : fromText(new TextDecoder().decode(bytes));
    if (!read.ok) return read;
    const pieces = documentPieces(read.document);
    // The page takes the pieces over while the rest is checked here.
    const tell = (each: DocumentPiece, i: number) => {
      const isLast = i === pieces.length - 1;
      void piece('numbers' in each ? transfer(each, [each.numbers.buffer]) : each, isLast);
      if (i % PIECES_A_STEP === 0) void progress(HALF_WAY + (1 - HALF_WAY) * ((i + 1) / pieces.length));
    };
    const fit = pieces.every((each, i) => {
      const right = read.fits(each);
      if (right) tell(each.cut(), i);
      return right;
    });
    const problems = read.problems(fit);
    if (!fit || problems.length > 0) return { ok: false, problems };
    return transfer({ ok: true, bytes: read.bytes }, buffersOf(read.bytes));
  },

  async model({ name, bytes, beside, folder }, progress, sha256): Promise<ModelRead> {
    const byName = new Map(beside.map((file) => [file.name, file.bytes]));
    const brought = await bringModel({
      name,
      bytes,
      beside: (path) => byName.get(folder + path) ?? byName.get(path) ?? null,
      bytesBeside: true,
      progress: (share) => void progress(share),
      ...(sha256 && { sha256 }),
    });
    if (isBringProblem(brought)) return { ok: false, problems: [brought] };
    const { project, bytes: named } = assetsBeside(brought.project);
    const own: AssetBytes = new Map([...named, ...(brought.bytes ?? [])]);
    const { report } = brought;
    return transfer({ ok: true, brought: { project, report }, bytes: own }, buffersOf(own));
  },
};

/** Reading is about as much work as checking and taking over what was read. */
const HALF_WAY = 0.5;
/** The bar moves on once in so many pieces: each time the page draws it. */
const PIECES_A_STEP = 4;

/** A document with the right head. */
type WithHead =
  | {
      readonly ok: true;
      readonly document: Fields;
      readonly bytes: AssetBytes;
      /** Whether a piece of it has the right shape. */
      readonly fits: (piece: PieceToCut) => boolean;
      /** What is wrong in it, where all of its pieces fit or one does not. */
      readonly problems: (fit: boolean) => readonly Problem[];
    }
  | { readonly ok: false; readonly problems: readonly Problem[] };

function fromText(text: string): WithHead {
  const parsed = parseJson(text);
  if (!parsed.ok) return parsed;
  const { value } = parsed;
  const problems = () => problemsIn(readProject(text));
  if (!hasRightHead(value)) return { ok: false, problems: problems() };
  return {
    ok: true,
    ...beside(value as Fields),
    fits: (piece) => piece.hasRightShape(),
    problems: (fit) => (fit ? checkReferences(value) : problems()),
  };
}

function problemsIn(read: Result<Project>): readonly Problem[] {
  return read.ok ? [] : read.problems;
}

function fromZip(bytes: Uint8Array): WithHead {
  const read = unpackKaizenZip(bytes);
  if (!read.ok) return read;
  const { project, bytes: own } = read.value;
  return {
    ok: true,
    document: stripDefaults(project as unknown as Fields),
    bytes: own,
    fits: () => true,
    problems: () => [],
  };
}

/** A document that names its models and sounds only, and their bytes. */
function beside(whole: Fields): { readonly document: Fields; readonly bytes: AssetBytes } {
  const { project: document, bytes } = assetsBeside(whole);
  return { document, bytes };
}

/** What of some bytes can go to the page without a copy: each buffer once, where nothing else lies in it. */
function buffersOf(bytes: AssetBytes): ArrayBuffer[] {
  const buffers = [...bytes.values()].flatMap(({ buffer, byteLength }) =>
    buffer instanceof ArrayBuffer && buffer.byteLength === byteLength ? [buffer] : [],
  );
  return [...new Set(buffers)];
}
