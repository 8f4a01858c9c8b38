import type { Curve } from '../project';
import { keyedJet, keyedValue, LEG_HOLD } from './keyed';
import { curveJet, type CompiledCurve } from './compile';
import { repeats, type CompiledOutside } from './outside';
import { advanceJet, type Jet } from '../law';

/**
 * How well a loop closes where it starts again: value, speed (per second) and acceleration (per second squared) just after the seam
 * less those just before it, `frame` the outer key's, `to` the frame that shows again there.
 */
export interface SeamGap {
  readonly side: 'before' | 'after';
  readonly frame: number;
  readonly to: number;
  readonly value: number;
  readonly speed: number;
  readonly acceleration: number;
}

/** The gaps at the ends where a curve repeats itself: none, one or two. */
export function seamGaps(source: Curve, curve: CompiledCurve, secondsPerFrame: number): readonly SeamGap[] {
  if (source.keys.length < 2) return [];
  return (['before', 'after'] as const).flatMap((side): SeamGap[] => {
    const outside = curve.keys[side];
    const period = outside.end - outside.start;
    if (!repeats(outside.mode) || !(period > 0) || outside.count === 0) return [];
    const frame = side === 'after' ? outside.end : outside.start;
    const [left, right] = curve.treated ? treatedJets(curve, frame) : keyedJets(curve, outside, frame);
    return [
      {
        side,
        frame,
        to: side === 'after' ? outside.start : outside.end,
        value: right[0] - left[0],
        speed: (right[1] - left[1]) / secondsPerFrame,
        acceleration: (right[2] - left[2]) / secondsPerFrame ** 2,
      },
    ];
  });
}

/** The limits on both sides of a seam: rates exactly, values by where the cycle begins and ends. */
function keyedJets({ keys, rest }: CompiledCurve, outside: CompiledOutside, frame: number): [Jet, Jet] {
  const before = keyedJet(keys, frame, rest, true);
  const after = keyedJet(keys, frame, rest);
  const arrives = (at: number) => {
    const index = keys.times.indexOf(at);
    return index > 0 && keys.kinds[index - 1] === LEG_HOLD ? keys.values[index - 1]! : keys.values[index]!;
  };
  const [start, end] = [keyedValue(keys, outside.start, rest), arrives(outside.end)];
  if (outside.mode === 'swing') {
    const value = outside.side === 'after' ? end : start;
    return [withValue(before, value), withValue(after, value)];
  }
  return outside.side === 'after'
    ? [withValue(before, end), withValue(after, start + outside.carry)]
    : [withValue(before, end - outside.carry), withValue(after, start)];
}

function withValue([, d1, d2, d3]: Jet, value: number): Jet {
  return [value, d1, d2, d3];
}

/** How far from the seam a treated curve is read; what lies between is Taylor's series. */
const BESIDE = 1e-5;

function treatedJets(curve: CompiledCurve, frame: number): [Jet, Jet] {
  return [
    advanceJet(curveJet(curve, frame - BESIDE), BESIDE),
    advanceJet(curveJet(curve, frame + BESIDE), -BESIDE),
  ];
}
