import type { Clip, Curve, Part, Project } from '../project';
import {
  fillCurveAround,
  fillCurvePacked,
  fillDefaults,
  fillItem,
  fillKey,
  isBareKey,
  isObject,
} from './defaults';
import { nestsTooDeep, sizeProblems } from './limits';
import { checkShape, fitsSchema } from './read';

/**
 * A project's document in pieces, so that a page can take a project of any size over from a worker without one long task: `head`
 * is the text of the document with its lists of parts and curves empty; then come parts and curves, some at a time, in order. The
 * frames and values of the curves' keys come as numbers, `[frame, value]` a key, because reading numbers from text is what takes
 * longest.
 */
export type DocumentPiece =
  | { readonly kind: 'head'; readonly text: string }
  | { readonly kind: 'parts'; readonly text: string }
  | { readonly kind: 'curves'; readonly clip: number; readonly text: string; readonly numbers: Float64Array };

/** About so many keys go into a piece, and a tenth as many parts: a few milliseconds of work each. */
const KEYS_A_PIECE = 8000;
const PARTS_A_PIECE = 400;

type Fields = Readonly<Record<string, unknown>>;

/** A piece of a document that is not cut yet. */
export interface PieceToCut {
  /** Whether the parts or curves in it are of the kind that belongs there; only then may it be cut. */
  readonly hasRightShape: () => boolean;
  readonly cut: () => DocumentPiece;
}

/**
 * Whether the JSON of a text is a document of the right shape, no bigger and no deeper than may be, but for its parts and curves. Where
 * it is, and each of its pieces has the right shape, `parseDocument` and `checkShape` find nothing wrong in it.
 */
export function hasRightHead(document: unknown): boolean {
  const head = headOf(document);
  return (
    !nestsTooDeep(head) && checkShape(head).length === 0 && sizeProblems(document as Fields).length === 0
  );
}

/** The pieces of a document with the right head, in order. */
export function documentPieces(document: Fields): readonly PieceToCut[] {
  const head = headOf(document);
  const pieces: PieceToCut[] = [
    { hasRightShape: () => true, cut: () => ({ kind: 'head', text: JSON.stringify(head) }) },
  ];
  const parts = listIn(document, 'parts');
  for (let i = 0; i < parts.length; i += PARTS_A_PIECE) {
    const some = parts.slice(i, i + PARTS_A_PIECE);
    pieces.push({
      hasRightShape: () => isRight({ ...EMPTY, parts: some }),
      cut: () => ({ kind: 'parts', text: JSON.stringify(some) }),
    });
  }
  for (const [clip, fields] of listIn(document, 'clips').entries()) {
    const curves = listIn(fields, 'curves');
    let from = 0;
    let keys = 0;
    for (const [i, curve] of curves.entries()) {
      keys += listIn(curve, 'keys').length + 1;
      if (keys < KEYS_A_PIECE && i < curves.length - 1) continue;
      pieces.push(curvesToCut(clip, curves.slice(from, i + 1)));
      from = i + 1;
      keys = 0;
    }
  }
  return pieces;
}

function curvesToCut(clip: number, curves: readonly unknown[]): PieceToCut {
  let taken: BareKeysTaken | null = null;
  const take = () => (taken ??= withoutBareKeys(curves));
  return {
    hasRightShape: () => isRight({ ...EMPTY, clips: [{ id: EMPTY.id, curves: take().curves }] }),
    cut: () => {
      const { text, numbers } = withoutNumbers(take());
      taken = null;
      return { kind: 'curves', clip, text, numbers };
    },
  };
}

function isRight(document: unknown): boolean {
  return !nestsTooDeep(document) && fitsSchema(document);
}

/** A project of nothing, to check entries of its lists in. */
const EMPTY = {
  format: 'kaizen',
  version: 1,
  id: 'empty',
  name: '',
  rate: { frames: 24, per: 1 },
  range: { start: 0, end: 1 },
};

/** A document with its lists of parts and curves empty. */
function headOf(document: unknown): unknown {
  if (!isObject(document)) return document;
  const { parts, clips } = document;
  const withoutCurves = (clip: unknown) =>
    isObject(clip) && Array.isArray(clip['curves']) ? { ...clip, curves: [] } : clip;
  return {
    ...document,
    ...(Array.isArray(parts) && { parts: [] }),
    ...(Array.isArray(clips) && { clips: clips.map(withoutCurves) }),
  };
}

/** Some curves; of those that have nothing but bare keys, the keys are taken out as numbers. */
interface BareKeysTaken {
  /** Such a curve stands here with an empty list of keys. */
  readonly curves: readonly unknown[];
  /** How many keys each had that were taken; null where it kept its own. */
  readonly counts: readonly (number | null)[];
  readonly numbers: Float64Array;
}

/** Bare keys that are numbers have the right shape: what is left is quick to check. */
function withoutBareKeys(curves: readonly unknown[]): BareKeysTaken {
  const numbers = new Float64Array(2 * countOf(curves));
  let at = 0;
  const counts: (number | null)[] = [];
  const left = curves.map((curve) => {
    const keys = isObject(curve) ? curve['keys'] : null;
    const isTaken = Array.isArray(keys) && takeBareKeys(keys, numbers, at);
    counts.push(isTaken ? keys.length : null);
    if (!isTaken) return curve;
    at += 2 * keys.length;
    return { ...(curve as Fields), keys: [] };
  });
  return { curves: left, counts, numbers: numbers.subarray(0, at) };
}

/** Writes the frames and values of some keys where these are all that they have, and numbers; else says false. */
function takeBareKeys(keys: readonly unknown[], numbers: Float64Array, from: number): boolean {
  let at = from;
  for (const key of keys) {
    if (!isObject(key) || !isBareKey(key)) return false;
    const { frame, value } = key;
    if (!Number.isFinite(frame) || !Number.isFinite(value)) return false;
    numbers[at++] = frame as number;
    numbers[at++] = value as number;
  }
  return true;
}

/**
 * The text of some curves without their keys' frames and values, and these as numbers. The count of bare keys stands for them; of
 * others each key's other fields stay, and a key whose fields stand in another order stays whole.
 */
function withoutNumbers({ curves, counts, numbers: bare }: BareKeysTaken): {
  readonly text: string;
  readonly numbers: Float64Array;
} {
  const numbers = new Float64Array(bare.length + 2 * countOf(curves));
  let [from, at] = [0, 0];
  const rest = (curves as readonly Fields[]).map((curve, i) => {
    const count = counts[i]!;
    if (count !== null) {
      numbers.set(bare.subarray(from, (from += 2 * count)), at);
      at += 2 * count;
      return { ...curve, keys: count };
    }
    if (!Array.isArray(curve['keys'])) return curve;
    const others = (curve['keys'] as readonly Fields[]).map((key) => {
      const [first, second] = Object.keys(key);
      if (first !== 'frame' || second !== 'value') return key;
      const { frame, value, ...more } = key;
      numbers[at++] = frame as number;
      numbers[at++] = value as number;
      return more;
    });
    return { ...curve, keys: others };
  });
  return { text: JSON.stringify(rest), numbers: at === numbers.length ? numbers : numbers.slice(0, at) };
}

function countOf(curves: readonly unknown[]): number {
  return curves.reduce<number>((count, curve) => count + listIn(curve, 'keys').length, 0);
}

/** Curves with their keys' frames and values put back and their defaults put in. */
function withNumbers(curves: readonly Fields[], numbers: Float64Array): readonly Curve[] {
  let at = 0;
  const keyOf = (more: Fields): Fields =>
    fillKey('frame' in more ? more : { frame: numbers[at++]!, value: numbers[at++]!, ...more });
  const filled = (curve: Fields): Fields => {
    const { keys } = curve;
    if (keys === undefined) return fillItem('curves', curve);
    if (typeof keys !== 'number') return fillCurveAround((keys as readonly Fields[]).map(keyOf), curve);
    const own = numbers.subarray(at, (at += 2 * keys));
    return fillCurvePacked(own, curve as Fields & { readonly keys: number });
  };
  return curves.map(filled) as unknown as readonly Curve[];
}

function listIn(fields: unknown, name: string): readonly unknown[] {
  const list = isObject(fields) ? fields[name] : null;
  return Array.isArray(list) ? (list as unknown[]) : [];
}

/** Puts a project together from the pieces of its document, the shape of which was checked where they were cut. */
export class ProjectJoiner {
  private head: Project | null = null;
  private readonly parts: Part[] = [];
  private readonly curves: Curve[][] = [];

  take(piece: DocumentPiece): void {
    const value = JSON.parse(piece.text) as unknown;
    switch (piece.kind) {
      case 'head':
        this.head = fillDefaults(value as Fields) as unknown as Project;
        break;
      case 'parts':
        for (const part of value as Fields[]) this.parts.push(fillItem('parts', part) as unknown as Part);
        break;
      case 'curves': {
        const list = (this.curves[piece.clip] ??= []);
        for (const curve of withNumbers(value as Fields[], piece.numbers)) list.push(curve);
      }
    }
  }

  /** The project of all that came; the head must have come. */
  get project(): Project {
    if (!this.head) throw new Error('the head of the document has not come');
    const { head } = this;
    const clips = head.clips.map((clip, i): Clip => ({ ...clip, curves: this.curves[i] ?? [] }));
    return { ...head, parts: this.parts, clips };
  }
}
