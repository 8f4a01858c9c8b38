import type { KeyedCurve } from '../project';
import { compileOutside, repeats } from './outside';

/** A key seen again outside the keys: where it shows, and the frame of the key that it repeats. */
export interface RepeatedKey {
  readonly frame: number;
  readonly value: number;
  readonly of: number;
}

/** More repetitions than this in one view are not listed. */
const MOST_LISTED = 2000;

/** The keys that a curve's outsides repeat between two frames, in order. Where a seam shows two keys on one frame, the outer one is listed. */
export function repeatedKeys(curve: KeyedCurve, from: number, to: number): readonly RepeatedKey[] {
  const before = repeatedOn(curve, 'before', from, to);
  const after = repeatedOn(curve, 'after', from, to);
  if (before.length === 0 && after.length === 0) return NONE;
  return [...before, ...after].sort((a, b) => a.frame - b.frame);
}
const NONE: readonly RepeatedKey[] = [];

function repeatedOn(
  curve: KeyedCurve,
  side: 'before' | 'after',
  from: number,
  to: number,
): readonly RepeatedKey[] {
  if (!repeats(curve[side].mode)) return NONE;
  const { start, end, carry, count, mode } = compileOutside(curve, side, 0);
  const period = end - start;
  if (!(period > 0)) return NONE;
  const after = side === 'after';
  const edge = after ? end : start;
  const reach = Math.min(count * period, after ? to - edge : edge - from);
  const first = Math.max(1, Math.floor((after ? from - edge : edge - to) / period));
  const cycle = curve.keys.filter(({ frame }) => frame >= start && frame <= end);
  const list: RepeatedKey[] = [];
  for (let k = first; (k - 1) * period <= reach && list.length < MOST_LISTED; k++) {
    const mirrored = mode === 'swing' && k % 2 === 1;
    for (const key of cycle) {
      const inward = after === mirrored ? end - key.frame : key.frame - start;
      const beyond = (k - 1) * period + (after ? inward : period - inward);
      if (beyond <= 0 || beyond > reach || beyond < (after ? from - edge : edge - to)) continue;
      const outer = after ? inward === period : inward === 0;
      if (!outer && (inward === 0 || inward === period)) continue;
      list.push({
        frame: after ? edge + beyond : edge - beyond,
        value: key.value + (after ? k : -k) * carry,
        of: key.frame,
      });
    }
  }
  return list;
}
