import type { Curve, Key, Project } from '../../project';
import { secondsPerFrame } from '../../project';
import { repeats } from '../../curve';
import { changeCurves, withKeys } from '../curves';
import { shiftFrame } from '../time/time-map';
import { scaledSide } from '../scaled-side';
import { cycleOf, type Cycle, type End } from './cycle';

/** How fast a loop runs: its mean speed (unit per second) and the seconds of a round. */
export interface LoopSpeed {
  readonly end: End;
  readonly perSecond: number;
  readonly seconds: number;
}

/** The end whose repetition counts: after the keys, else before them. */
export function repeatingEnd(curve: Curve): End | null {
  if (repeats(curve.after.mode)) return 'after';
  return repeats(curve.before.mode) ? 'before' : null;
}

export function loopSpeed(project: Project, curve: Curve): LoopSpeed | null {
  const end = repeatingEnd(curve);
  const cycle = end && cycleOf(curve, end);
  if (!cycle) return null;
  const seconds = cycle.period * secondsPerFrame(project.rate);
  return { end, perSecond: cycle.carry / seconds, seconds };
}

/**
 * Gives a loop another mean speed. `times`: keys stay where they are in time and the round goes farther or less far. `values`: it goes as far as it
 * did in another time. What lies outside the round, a lead-in, stays as it is but arrives with the round's new speed where it did
 * so before. Null where it can't be: a round that goes nowhere, or one that would have to run backwards.
 */
export function setLoopSpeed(
  project: Project,
  curve: Curve,
  perSecond: number,
  keep: 'times' | 'values',
): Curve | null {
  const end = repeatingEnd(curve);
  const cycle = end && cycleOf(curve, end);
  if (!cycle || cycle.carry === 0) return null;
  const perFrame = perSecond * secondsPerFrame(project.rate);
  const factor = perFrame / (cycle.carry / cycle.period);
  if (keep === 'times') return scaledRound(curve, cycle, end, 1, factor);
  return factor > 0 && Number.isFinite(factor) ? scaledRound(curve, cycle, end, 1 / factor, 1) : null;
}

/** Gives a loop's round another length in seconds; values stay. Null where it is not longer than 0. */
export function setRoundSeconds(project: Project, curve: Curve, seconds: number): Curve | null {
  const end = repeatingEnd(curve);
  const cycle = end && cycleOf(curve, end);
  if (!cycle || !(seconds > 0)) return null;
  return scaledRound(curve, cycle, end, seconds / secondsPerFrame(project.rate) / cycle.period, 1);
}

/** The round scaled in time and value about its inner end: the pinned key, or the first (before the keys: the last). */
function scaledRound(curve: Curve, cycle: Cycle, end: End, time: number, value: number): Curve {
  const { start, end: last } = cycle;
  const fixed = curve.keys[end === 'after' ? start : last]!;
  const slope = value / time;
  const even = evenSpeedAtJoint(curve, cycle, end);
  const moved = new Map<number, number>();
  const keys = curve.keys.map((key, i): Key => {
    if (i < start || i > last) return key;
    const frame = key === fixed ? key.frame : shiftFrame(fixed.frame, (key.frame - fixed.frame) * time);
    moved.set(key.frame, frame);
    const goes = { in: i > start || (even && end === 'after'), out: i < last || (even && end === 'before') };
    return {
      ...key,
      frame,
      value: fixed.value + (key.value - fixed.value) * value,
      in: goes.in ? scaledSide(key.in, slope) : key.in,
      out: goes.out ? scaledSide(key.out, slope) : key.out,
    };
  });
  return withKeys(curve, keys, moved);
}

/** Whether the lead-in arrives with a set slope that is the round's own there, and so should go along. */
function evenSpeedAtJoint(curve: Curve, { start, end: last }: Cycle, end: End): boolean {
  const joint = curve.keys[end === 'after' ? start : last]!;
  const [into, out] = [joint.in, joint.out];
  const own = end === 'after' ? into : out;
  const round = end === 'after' ? out : into;
  if (own.mode !== 'set') return false;
  const chord = (a: Key, b: Key) => (b.value - a.value) / (b.frame - a.frame);
  const slope =
    round.mode === 'linear'
      ? end === 'after'
        ? chord(joint, curve.keys[start + 1]!)
        : chord(curve.keys[last - 1]!, joint)
      : round.slope;
  return Math.abs(own.slope - slope) <= 1e-9 * Math.max(1, Math.abs(slope));
}

/**
 * Makes a loop run at one speed for ever: the round becomes a straight line from its first to its last key, carried on; keys in between go, as they
 * would lie on it. A lead-in arrives with that speed.
 */
export function makeEven(project: Project, channels: readonly string[]): Project {
  return changeCurves(project, channels, (curve) => {
    const end = repeatingEnd(curve) ?? 'after';
    const cycle = cycleOf(curve, end);
    if (!cycle || cycle.carry === 0) return curve;
    const { start, end: last, carry, period } = cycle;
    const slope = carry / period;
    const linear = { mode: 'linear', slope: 0, reach: 1 / 3 } as const;
    const arriving = { mode: 'set', slope, reach: 1 / 3 } as const;
    const first: Key = {
      ...curve.keys[start]!,
      in: start > 0 ? arriving : linear,
      out: linear,
      joined: false,
      leg: { kind: 'curve' },
    };
    const ending: Key = {
      ...curve.keys[last]!,
      in: linear,
      out: last < curve.keys.length - 1 ? arriving : linear,
      joined: false,
    };
    const outside = { ...curve[end], mode: 'loop-carry' as const };
    const keys = [...curve.keys.slice(0, start), first, ending, ...curve.keys.slice(last + 1)];
    return withKeys({ ...curve, [end]: outside }, keys);
  });
}
