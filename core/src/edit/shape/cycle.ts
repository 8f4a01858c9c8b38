import type { Curve, Key } from '../../project';

export type End = 'before' | 'after';

/** The keys that an outside repeats: their places in the list, how long a round lasts (frames) and how far it goes. */
export interface Cycle {
  readonly start: number;
  readonly end: number;
  readonly period: number;
  readonly carry: number;
}

/** The cycle of one end of a curve, or null where there are not two keys for one. */
export function cycleOf(curve: Curve, end: End): Cycle | null {
  const { keys } = curve;
  const { pin } = curve[end];
  const pinned = pin === null ? -1 : keys.findIndex(({ frame }) => frame === pin);
  const start = end === 'after' && pinned >= 0 ? pinned : 0;
  const last = end === 'before' && pinned >= 0 ? pinned : keys.length - 1;
  const [a, b] = [keys[start], keys[last]];
  return a && b && last > start
    ? { start, end: last, period: b.frame - a.frame, carry: b.value - a.value }
    : null;
}

/** A key with a slope (per frame) set on one side; the key is split where the other side has another. */
export function withSetSlope(key: Key, side: 'in' | 'out', slope: number): Key {
  const other = key[side === 'in' ? 'out' : 'in'];
  const joined = key.joined && other.mode === 'set' && other.slope === slope;
  return { ...key, [side]: { ...key[side], mode: 'set', slope }, joined };
}
