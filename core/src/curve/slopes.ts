import type { Key, KeyedCurve, Leg, SideMode } from '../project';
import { legLaw } from './legs';

/** Reach is kept inside these bounds, so that time is strictly monotone along a leg. */
export const LEAST_REACH = 0.001;
export const MOST_REACH = 0.99;

/** What a free fall needs to know of its project: the seconds in a frame, and gravity in units per s². */
export interface CurveContext {
  readonly secondsPerFrame: number;
  readonly gravity: number;
}

/** How the curve really meets a key on one side: slope in value per frame, reach as a share of the leg. */
export interface ResolvedSide {
  readonly slope: number;
  readonly reach: number;
}

type SideName = 'in' | 'out';

/** A leg as seen across a key: its chord and length, and what fills it. `slope` is null for a curve leg. */
interface Neighbour {
  readonly chord: number;
  readonly length: number;
  readonly slope: number | null;
}

/**
 * The slope and reach of a key's side by its mode (contract §3). `smooth` and `bounded` look across to the
 * leg on the key's other side; at the first and last key they look round the seam of a loop.
 */
export function resolveSide(
  curve: KeyedCurve,
  index: number,
  side: SideName,
  context: CurveContext,
): ResolvedSide {
  const key = keyAt(curve, index);
  const spec = key[side];
  const own = legBeside(curve, index, side, context);
  const slope = rawSlope(curve, index, side, spec.mode, spec.slope, own, context);
  if (spec.mode !== 'bounded' || !own) return { slope, reach: clampReach(spec.reach) };
  const kept = slope * own.chord > 0 ? slope : 0;
  const reach = kept === 0 ? spec.reach : Math.min(spec.reach, own.chord / kept);
  return { slope: kept, reach: clampReach(reach) };
}

/** The reach of a side kept inside its bounds. */
export function clampReach(reach: number): number {
  return Math.min(MOST_REACH, Math.max(LEAST_REACH, reach));
}

/**
 * The slope of a smooth side at an inner key between two curve legs, per frame; null elsewhere. The same number as `resolveSide`
 * gives, in the form that nearly every key has, without its detours: a big project asks half a million times.
 */
export function smoothInside({ keys }: KeyedCurve, index: number): number | null {
  const before = keys[index - 1];
  const key = keys[index]!;
  const after = keys[index + 1];
  if (!before || !after || before.leg.kind !== 'curve' || key.leg.kind !== 'curve') return null;
  const h0 = key.frame - before.frame;
  const h1 = after.frame - key.frame;
  const d0 = (key.value - before.value) / h0;
  const d1 = (after.value - key.value) / h1;
  return smoothSlope(d0, h0, d1, h1);
}

/** The slope of a smooth side between two curve legs of chords `d0`, `d1` (per frame) and lengths `h0`, `h1` (frames). */
export function smoothSlope(d0: number, h0: number, d1: number, h1: number): number {
  return (d0 * h0 + d1 * h1) / (h0 + h1);
}

function keyAt(curve: KeyedCurve, index: number): Key {
  const key = curve.keys[index];
  if (!key) throw new RangeError(`no key ${index} in a curve of ${curve.keys.length}`);
  return key;
}

function legBeside(
  curve: KeyedCurve,
  index: number,
  side: SideName,
  context: CurveContext,
): Neighbour | null {
  const from = side === 'out' ? index : index - 1;
  const a = curve.keys[from];
  const b = curve.keys[from + 1];
  if (!a || !b) return null;
  return neighbour(a, b, side === 'out' ? 'start' : 'end', context);
}

function neighbour(a: Key, b: Key, end: 'start' | 'end', context: CurveContext): Neighbour {
  const length = b.frame - a.frame;
  return {
    chord: (b.value - a.value) / length,
    length,
    slope: a.leg.kind === 'curve' ? null : legEndSlope(a.leg, a, b, end, context),
  };
}

/** The slope, per frame, that a leg which is not a curve has at one of its ends; 0 for a hold and where it is not finite. */
export function legEndSlope(leg: Leg, a: Key, b: Key, end: 'start' | 'end', context: CurveContext): number {
  const slope = rawLegEndSlope(leg, a, b, end, context);
  return Number.isFinite(slope) ? slope : 0;
}

/** As `legEndSlope`, but not finite where the leg is vertical there. */
export function rawLegEndSlope(
  leg: Leg,
  a: Key,
  b: Key,
  end: 'start' | 'end',
  context: CurveContext,
): number {
  if (leg.kind === 'hold') return 0;
  const dt = b.frame - a.frame;
  const dv = b.value - a.value;
  if (leg.kind === 'ballistic') {
    const seconds = dt * context.secondsPerFrame;
    const g = leg.gravity ?? context.gravity;
    const speed = dv / seconds + ((end === 'start' ? 1 : -1) * g * seconds) / 2;
    return speed * context.secondsPerFrame;
  }
  const law = legLaw(leg);
  if (!law) return Number.NaN;
  return dv === 0 ? 0 : (dv * law.rates(end === 'start' ? 0 : 1, end === 'end')[1]) / dt;
}

function rawSlope(
  curve: KeyedCurve,
  index: number,
  side: SideName,
  mode: SideMode,
  stored: number,
  own: Neighbour | null,
  context: CurveContext,
): number {
  switch (mode) {
    case 'set':
      return stored;
    case 'flat':
      return 0;
    case 'linear':
      return own?.chord ?? 0;
    case 'smooth':
    case 'bounded':
      return acrossSlope(curve, index, mode, context);
  }
}

function acrossSlope(
  curve: KeyedCurve,
  index: number,
  mode: 'smooth' | 'bounded',
  context: CurveContext,
): number {
  const last = curve.keys.length - 1;
  const before = legBeside(curve, index, 'in', context);
  const after = legBeside(curve, index, 'out', context);
  if (index > 0 && index < last && before && after) return between(before, after, mode);
  if (last < 1) return 0;
  return endSlope(curve, index === 0 ? 'first' : 'last', before, after, mode, context);
}

/**
 * Across a key between two legs. A leg that is no curve gives its own slope. Both are asked, as a key's two
 * sides share one rule: the side of a curve leg looks at the other leg.
 */
function between(before: Neighbour, after: Neighbour, mode: 'smooth' | 'bounded'): number {
  if (before.slope !== null) return before.slope;
  if (after.slope !== null) return after.slope;
  const { chord: d0, length: h0 } = before;
  const { chord: d1, length: h1 } = after;
  if (mode === 'smooth') return smoothSlope(d0, h0, d1, h1);
  if (d0 * d1 <= 0) return 0;
  const w1 = 2 * h1 + h0;
  const w2 = h1 + 2 * h0;
  return (w1 + w2) / (w1 / d0 + w2 / d1);
}

function endSlope(
  curve: KeyedCurve,
  end: 'first' | 'last',
  before: Neighbour | null,
  after: Neighbour | null,
  mode: 'smooth' | 'bounded',
  context: CurveContext,
): number {
  const own = end === 'last' ? curve.after : curve.before;
  if (goesRound(own.mode) && own.pin !== null) return pinnedSlope(curve, end, own.pin, context);
  const seam = [curve.after, curve.before].find((outside) => goesRound(outside.mode) && outside.pin === null);
  if (seam) return seamSlope(curve, end, seam.mode, before, after, mode, context);
  if (own.mode === 'run-on') return (end === 'last' ? before : after)?.chord ?? 0;
  return 0;
}

function goesRound(mode: string): boolean {
  return mode === 'loop' || mode === 'loop-carry';
}

function pinnedSlope(curve: KeyedCurve, end: 'first' | 'last', pin: number, context: CurveContext): number {
  const index = curve.keys.findIndex((key) => key.frame === pin);
  if (index <= 0 || index >= curve.keys.length - 1) return 0;
  const side = end === 'last' ? 'out' : 'in';
  const reached = legBeside(curve, index, side, context);
  return reached?.slope ?? resolveSide(curve, index, side, context).slope;
}

function seamSlope(
  curve: KeyedCurve,
  end: 'first' | 'last',
  seamMode: string,
  before: Neighbour | null,
  after: Neighbour | null,
  mode: 'smooth' | 'bounded',
  context: CurveContext,
): number {
  const { keys } = curve;
  const last = keys.length - 1;
  const va = keyAt(curve, 0).value;
  const vb = keyAt(curve, last).value;
  if (seamMode === 'loop' && Math.abs(vb - va) > 1e-9 * Math.max(1, Math.abs(va), Math.abs(vb))) return 0;
  const lastLeg = before ?? neighbour(keyAt(curve, last - 1), keyAt(curve, last), 'end', context);
  const firstLeg = after ?? neighbour(keyAt(curve, 0), keyAt(curve, 1), 'start', context);
  const reached = end === 'last' ? firstLeg : lastLeg;
  if (reached.slope !== null) return reached.slope;
  return between({ ...lastLeg, slope: null }, { ...firstLeg, slope: null }, mode);
}
