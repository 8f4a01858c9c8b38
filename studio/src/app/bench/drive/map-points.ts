import type { KeyedCurve } from '@kaizen/core';

/** A point moved; it does not pass those beside it. */
export function movedPoint(
  curve: KeyedCurve,
  index: number,
  { frame, value }: { readonly frame: number; readonly value: number },
): KeyedCurve {
  const [before, after] = [curve.keys[index - 1], curve.keys[index + 1]];
  const low = before ? before.frame + 1e-4 : -Infinity;
  const high = after ? after.frame - 1e-4 : Infinity;
  const placed = Math.min(high, Math.max(low, frame));
  const keys = curve.keys.map((key, i) => (i === index ? { ...key, frame: placed, value } : key));
  return { ...curve, keys };
}

/** A number as a hand sets it, with four digits that count. */
export function tidy(number: number): number {
  return Number(number.toPrecision(4));
}
