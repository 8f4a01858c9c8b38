import { curveOf, partProperties, type Project } from '@kaizen/core';
import { benchFields, initialBench, type BenchState } from './rooms';

/**
 * The Bench's state as it is kept with its project: a versioned record, each field described in its room by what it must be (`rooms/`). What is read is
 * migrated first, then looked at field by field; a field that is not what it must be begins as in a new Bench, and what
 * points into the project but names nothing there is left out.
 */
export const BENCH_VERSION = 1;

export interface BenchRecord {
  readonly version: typeof BENCH_VERSION;
  readonly bench: BenchState;
}

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
  const good = Object.entries(benchFields).flatMap(([name, { is }]) => {
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
