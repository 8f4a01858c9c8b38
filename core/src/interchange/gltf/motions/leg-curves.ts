import { DEFAULT_SIDE, type Curve, type Key, type Side } from '../../../project';
import { emptyCurve } from '../../../edit';
import type { Keyed } from './sampler';

const LINEAR: Side = { ...DEFAULT_SIDE, mode: 'linear' };
const CURVE = { kind: 'curve' } as const;
const HOLD = { kind: 'hold' } as const;

/** A value that goes straight, or through a cubic, from key to key: slopes in units per frame on both sides of a key. */
export interface CurveKey {
  readonly frame: number;
  readonly value: number;
  readonly before: number | 'straight';
  readonly after: number | 'straight' | 'held';
}

/**
 * A channel's curve through some keys. glTF's cubics are Hermite curves in time, so slopes with a reach of a third give them exactly
 * (glTF 2.0, appendix C). Null where the value never differs from `rest`; one key where it never changes.
 */
export function curveOfKeys(channel: string, keys: readonly CurveKey[], rest: number): Curve | null {
  const first = keys[0]!;
  const held = withHolds(keys);
  const still = keys.every(
    ({ value, before, after }) => value === first.value && isLevel(before) && isLevel(after),
  );
  if (still && first.value === rest) return null;
  const kept = still ? [{ ...first, before: 0, after: 0 }] : held;
  return { ...emptyCurve(channel), keys: kept.map(keyOf) };
}

/** Before a jump many programs write the value once more: keys that stay and then jump are one key that holds. */
const JUMP = 1e-3;

function withHolds(keys: readonly CurveKey[]): readonly CurveKey[] {
  const kept: CurveKey[] = [];
  keys.forEach((key, i) => {
    const [last, next] = [kept.at(-1), keys[i + 1]];
    const repeats =
      last &&
      next &&
      next.frame - key.frame < JUMP &&
      key.value === last.value &&
      isLevel(last.after) &&
      isLevel(key.before);
    if (repeats) kept[kept.length - 1] = { ...last, after: 'held' };
    else kept.push(key);
  });
  return kept;
}

function isLevel(slope: CurveKey['after']): boolean {
  return typeof slope === 'string' || slope === 0;
}

function keyOf({ frame, value, before, after }: CurveKey): Key {
  const out = after === 'held' ? DEFAULT_SIDE : sideOf(after);
  const joined = typeof before === 'number' && before === after;
  return { frame, value, in: sideOf(before), out, joined, leg: after === 'held' ? HOLD : CURVE };
}

function sideOf(slope: number | 'straight'): Side {
  if (slope === 'straight') return LINEAR;
  return { ...DEFAULT_SIDE, mode: 'set', slope };
}

/** The keys of one number of a sampler. */
export function componentKeys(
  { interpolation, frames, size, values, before, after }: Keyed,
  n: number,
): CurveKey[] {
  return Array.from(frames, (frame, i): CurveKey => {
    const at = i * size + n;
    const value = values[at]!;
    if (interpolation === 'CUBICSPLINE') return { frame, value, before: before[at]!, after: after[at]! };
    return { frame, value, before: 'straight', after: interpolation === 'STEP' ? 'held' : 'straight' };
  });
}
