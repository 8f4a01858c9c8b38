import type { BenchState } from '../../state/bench';

/** The fields of the Bench that the plot is drawn by. */
const LOOK = [
  'parts',
  'channels',
  'keys',
  'handles',
  'density',
  'only',
  'lane',
  'pinned',
  'shaping',
  'stakes',
  'summary',
] as const;

export function sameLook(a: BenchState, b: BenchState): boolean {
  return LOOK.every((field) => a[field] === b[field]);
}

export function sameList(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((item, i) => item === b[i]);
}
