import type { Problem } from '../project';

/**
 * How big a project may be (docs/limits.md). What is bigger is refused in one sentence, before anything runs out of stack, time or
 * memory.
 */
export const LIMITS = {
  /** Drivers and constraints that look at other frames, each reading the one before. */
  lateDepth: 256,
  keys: 2_000_000,
  parts: 20_000,
  /** Parts on top of each other. */
  partDepth: 1_000,
  /** Frames from the start of the range to its end. */
  rangeFrames: 1_000_000,
  treatmentsACurve: 64,
  interlocks: 2_000,
  /** Objects and lists within each other in the text of a file, fields that Kaizen does not know included. */
  jsonDepth: 1_000,
} as const;

/** Whether objects and lists stand in each other deeper than may be. */
export function nestsTooDeep(value: unknown, room: number = LIMITS.jsonDepth): boolean {
  if (typeof value !== 'object' || value === null) return false;
  if (room === 0) return true;
  if (Array.isArray(value)) {
    for (let i = 0; i < value.length; i++) if (nestsTooDeep(value[i], room - 1)) return true;
    return false;
  }
  const fields = value as Readonly<Record<string, unknown>>;
  for (const name in fields) {
    const field = fields[name];
    if (typeof field === 'object' && field !== null && nestsTooDeep(field, room - 1)) return true;
  }
  return false;
}

/**
 * Where a JSON text nests deeper than may be; null where it does not. Looks at brackets outside strings only, so that it needs no
 * stack of its own and stops at once.
 */
export function nestingProblem(text: string): Problem | null {
  let depth = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === QUOTE) {
      for (i++; i < text.length && text.charCodeAt(i) !== QUOTE; i++)
        if (text.charCodeAt(i) === BACKSLASH) i++;
    } else if (code === OPEN_LIST || code === OPEN_OBJECT) {
      if (++depth > LIMITS.jsonDepth)
        return {
          pointer: '',
          message: `objects and lists stand in each other more than ${shown(LIMITS.jsonDepth)} deep, at character ${shown(i + 1)}; no project needs that`,
        };
    } else if (code === CLOSE_LIST || code === CLOSE_OBJECT) depth--;
  }
  return null;
}

const QUOTE = 34;
const BACKSLASH = 92;
const OPEN_LIST = 91;
const CLOSE_LIST = 93;
const OPEN_OBJECT = 123;
const CLOSE_OBJECT = 125;

type Fields = Readonly<Record<string, unknown>>;

/** What of a parsed document is more than a project may have: counted before anything is checked or copied. */
export function sizeProblems(document: Fields): readonly Problem[] {
  const problems: Problem[] = [];
  const parts = lengthOf(document['parts']);
  if (parts > LIMITS.parts) problems.push(tooMany('/parts', parts, 'parts', LIMITS.parts));
  const interlocks = lengthOf(document['interlocks']);
  if (interlocks > LIMITS.interlocks)
    problems.push(tooMany('/interlocks', interlocks, 'interlocks', LIMITS.interlocks));
  let keys = 0;
  const countKeys = (take: Fields, at: () => string): void => {
    keys += lengthOf(take['keys']);
    const count = lengthOf(take['treatments']);
    if (count > LIMITS.treatmentsACurve)
      problems.push(tooMany(`${at()}/treatments`, count, 'treatments', LIMITS.treatmentsACurve, 'a curve'));
    else for (const { weight } of listOf(take['treatments'])) keys += lengthOf(asFields(weight)['keys']);
  };
  for (const [i, clip] of listOf(document['clips']).entries()) {
    for (const [j, curve] of listOf(clip['curves']).entries()) {
      countKeys(curve, () => `/clips/${i}/curves/${j}`);
      countKeys(asFields(curve['otherTake']), () => `/clips/${i}/curves/${j}/otherTake`);
    }
  }
  for (const { curve } of listOf(document['drivers'])) keys += lengthOf(asFields(curve)['keys']);
  for (const { weight, time } of listOf(document['arrangement']))
    keys += lengthOf(asFields(weight)['keys']) + lengthOf(asFields(time)['keys']);
  if (keys > LIMITS.keys) problems.push(tooMany('/clips', keys, 'keys', LIMITS.keys));
  const { start, end } = asFields(document['range']);
  if (typeof start === 'number' && typeof end === 'number' && end - start > LIMITS.rangeFrames)
    problems.push(tooMany('/range', Math.round(end - start), 'frames', LIMITS.rangeFrames, 'the range'));
  return problems;
}

function tooMany(pointer: string, count: number, what: string, most: number, where = 'a project'): Problem {
  return { pointer, message: `these are ${shown(count)} ${what}; ${where} may have at most ${shown(most)}` };
}

function shown(count: number): string {
  return String(count).replace(/\B(?=(\d{3})+$)/g, ',');
}

function asFields(value: unknown): Fields {
  return typeof value === 'object' && value !== null ? (value as Fields) : NOTHING;
}
const NOTHING: Fields = {};

function listOf(value: unknown): readonly Fields[] {
  return Array.isArray(value) ? value.map(asFields) : [];
}

function lengthOf(value: unknown): number {
  return Array.isArray(value) ? value.length : 0;
}
