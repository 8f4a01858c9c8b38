import { bareKey, firstAfter, firstAtOrAfter, packedKeys, type KeyedCurve } from '../project';
import type { Jet, Law } from '../law';
import { bezierJet, bezierValue, solveBezierTime } from './bezier';
import { legLaw } from './legs';
import { compileOutside, locateOutside, type CompiledOutside, type Located } from './outside';
import {
  clampReach,
  rawLegEndSlope,
  resolveSide,
  smoothInside,
  smoothSlope,
  type CurveContext,
} from './slopes';

/**
 * Keys compiled to flat numbers. `times` and `values` have one entry a key; `legs` six a leg:
 * curve     [c1, c2, dv, a, b, dt]        Bernstein values relative to the first key, times as shares
 * polynomial [k1, k2, k3, –, –, dt]       value = v0 + τ(k1 + τ(k2 + τ·k3)), for reach 1/3 on both sides
 * ballistic [k1, k2, 0, –, –, dt]         the same polynomial
 * law       [dv, –, –, –, –, dt]          value = v0 + dv·H(τ)
 */
export interface CompiledKeys {
  readonly times: Float64Array;
  readonly values: Float64Array;
  readonly legs: Float64Array;
  readonly kinds: Uint8Array;
  readonly laws: readonly (Law | null)[];
  readonly before: CompiledOutside;
  readonly after: CompiledOutside;
  /** The leg found last; evaluation usually stays in it. */
  hint: number;
}

export const LEG_STRIDE = 6;
export const LEG_HOLD = 0;
export const LEG_POLYNOMIAL = 1;
export const LEG_BEZIER = 2;
export const LEG_LAW = 3;

const THIRD = 1 / 3;
const TWO_THIRDS = 1 - THIRD;
const NO_LAWS: readonly null[] = [];

export function compileKeys(curve: KeyedCurve, context: CurveContext): CompiledKeys {
  const numbers = packedKeys(curve);
  if (numbers && numbers.length > 0 && curve.before.mode === 'hold' && curve.after.mode === 'hold')
    return compileNumbers(numbers, curve);
  const { keys } = curve;
  const legCount = Math.max(0, keys.length - 1);
  const legs = new Float64Array(legCount * LEG_STRIDE);
  const kinds = new Uint8Array(legCount);
  const laws = new Array<Law | null>(legCount);
  let slope = keys.length > 0 ? smoothInside(curve, 0) : null;
  for (let i = 0; i < legCount; i++) {
    const next = smoothInside(curve, i + 1);
    laws[i] = legLaw(keys[i]!.leg);
    kinds[i] = compileLeg(curve, i, context, legs, slope, next);
    slope = next;
  }
  const times = new Float64Array(keys.length);
  const values = new Float64Array(keys.length);
  for (let i = 0; i < keys.length; i++) {
    times[i] = keys[i]!.frame;
    values[i] = keys[i]!.value;
  }
  return {
    times,
    values,
    legs,
    kinds,
    laws,
    before: compileOutside(curve, 'before', runOnSlope(curve, 'before', context)),
    after: compileOutside(curve, 'after', runOnSlope(curve, 'after', context)),
    hint: 0,
  };
}

/**
 * What `compileKeys` gives for bare keys with a hold on either side, `[frame, value]` a key, without making the keys: all legs are
 * cubics of reach 1/3, smooth at inner keys and flat at the outer ones. A big project has thousands of such curves.
 */
function compileNumbers(numbers: Float64Array, { before, after }: KeyedCurve): CompiledKeys {
  const count = numbers.length / 2;
  const legCount = count - 1;
  const times = new Float64Array(count);
  const values = new Float64Array(count);
  const legs = new Float64Array(legCount * LEG_STRIDE);
  for (let i = 0; i < count; i++) {
    times[i] = numbers[2 * i]!;
    values[i] = numbers[2 * i + 1]!;
  }
  let slope = 0;
  for (let i = 0; i < legCount; i++) {
    const at = i * LEG_STRIDE;
    const dt = times[i + 1]! - times[i]!;
    const dv = values[i + 1]! - values[i]!;
    const c1 = slope * THIRD * dt;
    slope = 0;
    if (i + 1 < legCount) {
      const next = times[i + 2]! - times[i + 1]!;
      slope = smoothSlope(dv / dt, dt, (values[i + 2]! - values[i + 1]!) / next, next);
    }
    writeCubic(legs, at, c1, dv - slope * THIRD * dt, dv);
    legs[at + 5] = dt;
  }
  const ends = [bareKey(times[0]!, values[0]!), bareKey(times[legCount]!, values[legCount]!)];
  return {
    times,
    values,
    legs,
    kinds: new Uint8Array(legCount).fill(LEG_POLYNOMIAL),
    laws: NO_LAWS,
    before: compileOutside({ keys: ends, before, after }, 'before', 0),
    after: compileOutside({ keys: ends, before, after }, 'after', 0),
    hint: 0,
  };
}

/** Writes a leg's numbers and gives its kind; the slopes are those that smooth sides have at its ends, null where that is a detour. */
function compileLeg(
  curve: KeyedCurve,
  i: number,
  context: CurveContext,
  legs: Float64Array,
  smoothOut: number | null,
  smoothInto: number | null,
): number {
  const a = curve.keys[i];
  const b = curve.keys[i + 1];
  if (!a || !b) throw new RangeError(`no leg ${i}`);
  const at = i * LEG_STRIDE;
  const dt = b.frame - a.frame;
  const dv = b.value - a.value;
  legs[at + 5] = dt;
  switch (a.leg.kind) {
    case 'hold':
      return LEG_HOLD;
    case 'ease':
    case 'law':
      legs[at] = dv;
      return LEG_LAW;
    case 'ballistic': {
      const seconds = dt * context.secondsPerFrame;
      const drop = ((a.leg.gravity ?? context.gravity) * seconds * seconds) / 2;
      legs[at] = dv + drop;
      legs[at + 1] = -drop;
      return LEG_POLYNOMIAL;
    }
    case 'curve':
      break;
  }
  if (a.out.mode === 'linear' && b.in.mode === 'linear') {
    legs[at] = dv;
    return LEG_POLYNOMIAL;
  }
  const outQuick = a.out.mode === 'smooth' ? smoothOut : null;
  const intoQuick = b.in.mode === 'smooth' ? smoothInto : null;
  const out = outQuick === null ? resolveSide(curve, i, 'out', context) : null;
  const into = intoQuick === null ? resolveSide(curve, i + 1, 'in', context) : null;
  const x1 = out?.reach ?? clampReach(a.out.reach);
  const r1 = into?.reach ?? clampReach(b.in.reach);
  const c1 = (out?.slope ?? outQuick!) * x1 * dt;
  const c2 = dv - (into?.slope ?? intoQuick!) * r1 * dt;
  const x2 = 1 - r1;
  if (x1 === THIRD && x2 === TWO_THIRDS) {
    writeCubic(legs, at, c1, c2, dv);
    return LEG_POLYNOMIAL;
  }
  legs[at] = c1;
  legs[at + 1] = c2;
  legs[at + 2] = dv;
  legs[at + 3] = x1;
  legs[at + 4] = x2;
  return LEG_BEZIER;
}

/** Writes a leg of reach 1/3 on both sides by its Bernstein values. */
function writeCubic(legs: Float64Array, at: number, c1: number, c2: number, dv: number): void {
  legs[at] = 3 * c1;
  legs[at + 1] = 3 * (c2 - 2 * c1);
  legs[at + 2] = dv + 3 * (c1 - c2);
}

/** The slope that `run-on` goes on with: the leg's own at that key, or its chord where that is not finite. */
function runOnSlope(curve: KeyedCurve, side: 'before' | 'after', context: CurveContext): number {
  const { keys } = curve;
  if (keys.length < 2 || curve[side].mode !== 'run-on') return 0;
  const i = side === 'before' ? 0 : keys.length - 2;
  const a = keys[i];
  const b = keys[i + 1];
  if (!a || !b) return 0;
  if (a.leg.kind === 'curve') {
    return side === 'before'
      ? resolveSide(curve, i, 'out', context).slope
      : resolveSide(curve, i + 1, 'in', context).slope;
  }
  const slope = rawLegEndSlope(a.leg, a, b, side === 'before' ? 'start' : 'end', context);
  return Number.isFinite(slope) ? slope : (b.value - a.value) / (b.frame - a.frame);
}

/** The leg whose first key is the last at or before `frame` (before it, when `left`). Frames must lie within the keys. */
function findLeg(keys: CompiledKeys, frame: number, left: boolean): number {
  const { times } = keys;
  const end = times.length - 1;
  const hint = keys.hint;
  if (!left && frame >= times[hint]! && frame < times[hint + 1]!) return hint;
  // the first key is before the frame, or stands on it: it need not be looked at
  const after = left ? firstAtOrAfter(times, frame, 1, end) : firstAfter(times, frame, 1, end);
  keys.hint = after - 1;
  return after - 1;
}

/** Value between the first and the last key; on a key's frame the key's value. */
function insideValue(keys: CompiledKeys, frame: number): number {
  const { times, values, legs } = keys;
  const last = times.length - 1;
  if (frame >= times[last]!) return values[last]!;
  const leg = findLeg(keys, frame, false);
  const v0 = values[leg]!;
  const kind = keys.kinds[leg]!;
  if (kind === LEG_HOLD) return v0;
  const at = leg * LEG_STRIDE;
  const tau = (frame - times[leg]!) / legs[at + 5]!;
  if (kind === LEG_POLYNOMIAL) return v0 + tau * (legs[at]! + tau * (legs[at + 1]! + tau * legs[at + 2]!));
  if (kind === LEG_BEZIER) {
    const u = solveBezierTime(legs[at + 3]!, legs[at + 4]!, tau);
    return v0 + bezierValue(legs[at]!, legs[at + 1]!, legs[at + 2]!, u);
  }
  return tau === 0 ? v0 : v0 + legs[at]! * keys.laws[leg]!.value(tau);
}

const located: Located = {
  frame: 0,
  lift: 0,
  reversed: false,
  left: false,
  slope: 0,
  offset: 0,
  still: false,
};

/** The keyed value at any frame, outside the keys by their modes. `rest` is what a curve without keys gives. */
export function keyedValue(keys: CompiledKeys, frame: number, rest: number): number {
  const { times, values } = keys;
  const count = times.length;
  if (count < 2) return count === 0 ? rest : values[0]!;
  if (frame < times[0]!) locateOutside(keys.before, frame, located);
  else if (frame > times[count - 1]!) locateOutside(keys.after, frame, located);
  else return insideValue(keys, frame);
  return insideValue(keys, located.frame) + located.lift + located.slope * located.offset;
}

/** Value and rates per frame, just after `frame` (just before, when `left`). A hold has rates 0, a jump is no impulse. */
export function keyedJet(keys: CompiledKeys, frame: number, rest: number, left = false): Jet {
  const { times, values } = keys;
  const count = times.length;
  if (count < 2) return [count === 0 ? rest : values[0]!, 0, 0, 0];
  const value = keyedValue(keys, frame, rest);
  const first = times[0]!;
  const last = times[count - 1]!;
  const at: Located = { frame, lift: 0, reversed: false, left, slope: 0, offset: 0, still: false };
  if (frame < first || (left && frame === first)) locateOutside(keys.before, frame, at, left);
  else if (frame > last || (!left && frame === last)) locateOutside(keys.after, frame, at, left);
  if (at.still) return [value, at.slope, 0, 0];
  const [, d1, d2, d3] = insideJet(keys, at.frame, at.left);
  return at.reversed ? [value, -d1, d2, -d3] : [value, d1, d2, d3];
}

function insideJet(keys: CompiledKeys, frame: number, left: boolean): Jet {
  const { times, legs } = keys;
  const leg = findLeg(keys, frame, left);
  const kind = keys.kinds[leg]!;
  const at = leg * LEG_STRIDE;
  const dt = legs[at + 5]!;
  const tau = Math.min(1, Math.max(0, (frame - times[leg]!) / dt));
  if (kind === LEG_HOLD) return [0, 0, 0, 0];
  if (kind === LEG_POLYNOMIAL) {
    const k1 = legs[at]!;
    const k2 = legs[at + 1]!;
    const k3 = legs[at + 2]!;
    return [
      0,
      (k1 + tau * (2 * k2 + tau * 3 * k3)) / dt,
      (2 * k2 + 6 * k3 * tau) / dt ** 2,
      (6 * k3) / dt ** 3,
    ];
  }
  if (kind === LEG_BEZIER) {
    const a = legs[at + 3]!;
    const b = legs[at + 4]!;
    return bezierJet(a, b, legs[at]!, legs[at + 1]!, legs[at + 2]!, dt, solveBezierTime(a, b, tau));
  }
  const dv = legs[at]!;
  if (dv === 0) return [0, 0, 0, 0];
  const [, d1, d2, d3] = keys.laws[leg]!.rates(tau, left);
  return [0, (dv * d1) / dt, (dv * d2) / dt ** 2, (dv * d3) / dt ** 3];
}
