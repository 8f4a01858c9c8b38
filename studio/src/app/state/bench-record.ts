import { SIDE_MODES, curveOf, partProperties, type Project } from '@kaizen/core';
import { ALL_KINDS, initialBench, SHEETS, type BenchState } from './bench';

/**
 * The Bench's state as it is kept with its project: a versioned record, each field described by what it must be. What is read is
 * migrated first, then looked at field by field; a field that is not what it must be begins as in a new Bench, and what
 * points into the project but names nothing there is left out.
 */
export const BENCH_VERSION = 1;

export interface BenchRecord {
  readonly version: typeof BENCH_VERSION;
  readonly bench: BenchState;
}

/** Whether a value is what a field must be. */
type Is = (value: unknown) => boolean;

const text: Is = (value) => typeof value === 'string';
const flag: Is = (value) => typeof value === 'boolean';
const number: Is = (value) => typeof value === 'number' && Number.isFinite(value);
const atLeast =
  (least: number): Is =>
  (value) =>
    number(value) && (value as number) >= least;
const oneOf =
  (...values: readonly string[]): Is =>
  (value) =>
    typeof value === 'string' && values.includes(value);
const orNull =
  (is: Is): Is =>
  (value) =>
    value === null || is(value);
const listOf =
  (is: Is): Is =>
  (value) =>
    Array.isArray(value) && value.every(is);
const vector: Is = (value) => listOf(number)(value) && (value as unknown[]).length === 3;
const shaped =
  (fields: Readonly<Record<string, Is>>): Is =>
  (value) =>
    typeof value === 'object' &&
    value !== null &&
    Object.entries(fields).every(([name, is]) => is((value as Record<string, unknown>)[name]));

const kinds = listOf(oneOf(...ALL_KINDS));
const key = shaped({ channel: text, frame: number });
const span = shaped({ start: number, end: number });

/** What each field must be. */
const FIELDS: Readonly<Record<keyof BenchState, Is>> = {
  parts: listOf(text),
  channels: listOf(text),
  keys: listOf(key),
  handles: listOf(shaped({ channel: text, frame: number, side: oneOf('in', 'out') })),
  frame: number,
  density: oneOf('ticks', 'curves', 'rates'),
  split: shaped({ on: flag, density: oneOf('ticks', 'curves', 'rates') }),
  tool: oneOf('select', 'move', 'turn', 'size'),
  axes: oneOf('own', 'parent', 'world', 'view'),
  collapsed: listOf(text),
  filter: oneOf('all', 'keyed', 'selected', 'off'),
  everyChannel: flag,
  rowSets: listOf(shaped({ name: text, channels: listOf(text) })),
  rowSet: orNull(text),
  only: orNull(text),
  lane: orNull(text),
  capture: shaped({
    on: flag,
    startNew: flag,
    markStart: flag,
    scope: kinds,
    parts: orNull(listOf(text)),
  }),
  playMode: oneOf('once', 'loop', 'forth'),
  playSpeed: atLeast(0.001),
  playEveryFrame: flag,
  playAll: flag,
  wholeFrames: flag,
  frameStep: atLeast(0.001),
  steps: shaped({ on: flag, length: number, angle: number }),
  turnPoint: orNull(vector),
  trail: flag,
  shotFrame: atLeast(0.1),
  keepInSight: flag,
  ghosts: flag,
  sheet: oneOf(...SHEETS),
  time: shaped({
    scope: oneOf('chosen', 'all'),
    pushedSlopes: oneOf('speed', 'shape'),
    slopes: oneOf('speed', 'shape'),
    rest: oneOf('follows', 'stays'),
    amount: number,
    mirrorAbout: oneOf('first', 'zero', 'playhead'),
    moves: shaped({ range: flag, markers: flag, sounds: flag }),
  }),
  stakes: listOf(shaped({ from: number, to: number })),
  held: shaped({ on: flag, released: orNull(span) }),
  snap: shaped({ markers: flag, keys: flag }),
  summary: oneOf('own', 'below'),
  kinds,
  pinned: listOf(text),
  newKeys: shaped({
    mode: oneOf(...SIDE_MODES),
    leg: shaped({ kind: oneOf('curve', 'hold', 'ease', 'law', 'ballistic') }),
  }),
  shaping: shaped({
    jerk: flag,
    lock: oneOf('places', 'free'),
    valueLock: flag,
    pictures: flag,
    box: flag,
    together: flag,
    takes: flag,
    untreated: flag,
    lanes: flag,
    path: flag,
  }),
};

/** The steps that bring a record of one version to the next. Records of before there were versions are the plain state. */
const MIGRATIONS: readonly ((record: Record<string, unknown>) => Record<string, unknown>)[] = [
  (plain) => ({ version: 1, bench: plain }),
];

/** The Bench of a kept record, for a project. Anything may come in; nothing is thrown. */
export function benchFromRecord(stored: unknown, project: Project): BenchState {
  const start: BenchState = { ...initialBench, frame: project.range.start };
  if (typeof stored !== 'object' || stored === null) return start;
  let record = stored as Record<string, unknown>;
  for (let version = versionOf(record); version < BENCH_VERSION; version++)
    record = MIGRATIONS[version]!(record);
  if (versionOf(record) > BENCH_VERSION) return start;
  const kept = record['bench'];
  if (typeof kept !== 'object' || kept === null) return start;
  const good = Object.entries(FIELDS).flatMap(([name, is]) => {
    const value = withDefaults(name, (kept as Record<string, unknown>)[name]);
    return is(value) ? [[name, value]] : [];
  });
  return pointingInto(project, { ...start, ...(Object.fromEntries(good) as Partial<BenchState>) });
}

/** The record of a state; the one before where nothing in it changed. */
export function benchRecord(bench: BenchState, last: unknown): BenchRecord {
  const before = last as BenchRecord | null;
  return before?.bench === bench ? before : { version: BENCH_VERSION, bench };
}

function versionOf(record: Record<string, unknown>): number {
  return typeof record['version'] === 'number' ? record['version'] : 0;
}

/** A group of settings with those put in that an older Kaizen did not have. */
function withDefaults(name: string, value: unknown): unknown {
  const fresh = initialBench[name as keyof BenchState];
  const group = (of: unknown): of is object => typeof of === 'object' && of !== null && !Array.isArray(of);
  return group(fresh) && group(value) ? { ...fresh, ...value } : value;
}

function pointingInto(project: Project, bench: BenchState): BenchState {
  const parts = new Map(project.parts.map((part) => [part.id, part]));
  const isChannel = (id: string) => {
    const at = id.indexOf('/');
    const part = parts.get(id.slice(0, at));
    const property = id.slice(at + 1).split('#')[0];
    return part !== undefined && partProperties(part).some((entry) => entry.property === property);
  };
  const isKey = ({ channel, frame }: { readonly channel: string; readonly frame: number }) =>
    curveOf(project, channel)?.keys.some((at) => at.frame === frame) ?? false;
  const known = (id: string) => parts.has(id);
  return {
    ...bench,
    parts: bench.parts.filter(known),
    channels: bench.channels.filter(isChannel),
    keys: bench.keys.filter(isKey),
    handles: bench.handles.filter(isKey),
    only: bench.only !== null && isChannel(bench.only) ? bench.only : null,
    lane: bench.lane !== null && isChannel(bench.lane) ? bench.lane : null,
    pinned: bench.pinned.filter(isChannel),
    capture: { ...bench.capture, parts: bench.capture.parts?.filter(known) ?? null },
  };
}
