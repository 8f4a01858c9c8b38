import {
  LEAST_REACH,
  MOST_REACH,
  bezierValue,
  compileKeys,
  keyedValue,
  solveBezierTime,
  type CurveContext,
} from '../../curve';
import type { Key, Side } from '../../project';
import { newKey } from '../curves';

/** Told of the share that is done, from 0 to 1; may stop the work by throwing. */
export type Progress = (share: number) => void;

/**
 * What a fit goes by: frames that rise, the value on each, and the slopes (per frame) just before and just after it. Every frame may
 * become a key; where the two slopes part by more than the tolerance over a step, one must.
 */
export interface FitSamples {
  readonly frames: Float64Array;
  readonly values: Float64Array;
  readonly before: Float64Array;
  readonly after: Float64Array;
  /** A frame on which a key is wanted whatever the fit. */
  readonly through?: number;
}

/** Keys of a fit, joined by Curve legs, and how far it is off where it is farthest. */
export interface Fitted {
  readonly keys: readonly Key[];
  readonly error: number;
  /** The frame of the greatest error. */
  readonly at: number;
}

/** A piece between two samples: the handles that fit best, and by how much they miss. */
interface Piece {
  readonly to: number;
  readonly out: Handle;
  readonly into: Handle;
  readonly error: number;
}
/** How far a piece is from its samples: at most, and the sum of squares. */
interface Miss {
  readonly error: number;
  readonly squares: number;
}
interface Handle {
  readonly slope: number;
  readonly reach: number;
}

const THIRD = 1 / 3;
/** While a piece is tried, it is measured at so many of its samples; at the end at all. */
const TRIED = 24;
/** Of the tolerance: what a piece aims at on those, to be within it on all. */
const ROOM = 0.85;
const BALANCING_STEPS = 4;

/**
 * Cubic pieces in (time, value) through as few of the samples as keep within `tolerance` (in the value's unit): each as long as it can be, then
 * the tolerance is drawn in as far as no more pieces come of it, so that the error is spread evenly. Handles have the sampled slopes; their
 * reaches are searched.
 */
function fitKeys(samples: FitSamples, tolerance: number, progress: Progress): readonly Key[] {
  const passes = 1 + BALANCING_STEPS;
  let best = piecesWithin(samples, tolerance, (share) => progress(share / passes));
  let low = 0;
  let high = tolerance;
  for (let step = 0; step < BALANCING_STEPS; step++) {
    const middle = (low + high) / 2;
    const tried = piecesWithin(samples, middle, (share) => progress((step + 1 + share) / passes));
    if (tried.length > best.length) low = middle;
    else [best, high] = [tried, middle];
  }
  return keysOf(samples, best);
}

const STILL = { mode: 'hold', count: null, pin: null } as const;
/** Between two samples the exact value is asked at so many places before a fit is believed. */
const ASKED_BETWEEN = 5;
/** A fit that is off between its samples is made again for less, so often. */
const TRIES = 6;

/** A fit that is within the tolerance of an exact function between its samples too; its error is the one found there. */
export function fitFunction(
  samples: FitSamples,
  exact: (frame: number) => number,
  tolerance: number,
  context: CurveContext,
  progress: Progress = () => undefined,
): Fitted {
  let within = tolerance;
  let told = 0;
  /** A try after the first begins anew; what was told is not taken back. */
  const tell = (share: number) => {
    if (share > told) progress((told = share));
  };
  for (let tries = 1; ; tries++) {
    const keys = fitKeys(samples, within, tell);
    const miss = missBetween(samples.frames, keys, exact, context);
    if (miss.error <= tolerance || tries === TRIES) return { keys, ...miss };
    within *= 0.95 * Math.max(0.3, tolerance / miss.error);
  }
}

function missBetween(
  frames: Float64Array,
  keys: readonly Key[],
  exact: (frame: number) => number,
  context: CurveContext,
): { readonly error: number; readonly at: number } {
  const compiled = compileKeys({ keys, before: STILL, after: STILL }, context);
  let [error, at] = [0, frames[0]!];
  for (let i = 0; i < frames.length - 1; i++) {
    for (let k = 0; k < ASKED_BETWEEN; k++) {
      const frame = frames[i]! + ((frames[i + 1]! - frames[i]!) * k) / ASKED_BETWEEN;
      const miss = Math.abs(keyedValue(compiled, frame, 0) - exact(frame));
      if (miss > error) [error, at] = [miss, frame];
    }
  }
  return { error, at };
}

function keysOf({ frames, values }: FitSamples, pieces: readonly Piece[]): readonly Key[] {
  const stops = [0, ...pieces.map(({ to }) => to)];
  return stops.map((i, k): Key => {
    const key = newKey(frames[i]!, values[i]!);
    const [before, after] = [pieces[k - 1]?.into, pieces[k]?.out];
    const joined = before !== undefined && after !== undefined && isSame(before.slope, after.slope);
    return {
      ...key,
      in: before ? side(joined ? { ...before, slope: after.slope } : before) : key.in,
      out: after ? side(after) : key.out,
      joined,
    };
  });
}

/** Slopes that differ only by how they were read are one. */
function isSame(a: number, b: number): boolean {
  return Math.abs(a - b) <= 1e-6 * Math.max(Math.abs(a), Math.abs(b));
}

function side({ slope, reach }: Handle): Side {
  return { mode: slope === 0 ? 'flat' : 'set', slope, reach };
}

function piecesWithin(
  samples: FitSamples,
  tolerance: number,
  progress: Progress = () => undefined,
): readonly Piece[] {
  const pieces: Piece[] = [];
  const corners = cornersOf(samples, tolerance);
  for (let c = 1; c < corners.length; c++) {
    const end = corners[c]!;
    for (let at = corners[c - 1]!; at < end; at = pieces.at(-1)!.to) {
      pieces.push(longestPiece(samples, at, end, tolerance));
      progress(pieces.at(-1)!.to / (samples.frames.length - 1));
    }
  }
  return pieces;
}

/** The first and last sample, and those where the slope jumps by more than the tolerance shows over a step. */
function cornersOf({ frames, before, after, through }: FitSamples, tolerance: number): readonly number[] {
  const corners = [0];
  for (let i = 1; i < frames.length - 1; i++) {
    const step = Math.max(frames[i]! - frames[i - 1]!, frames[i + 1]! - frames[i]!);
    if (frames[i] === through || !(Math.abs(after[i]! - before[i]!) * step <= tolerance)) corners.push(i);
  }
  return [...corners, frames.length - 1];
}

/** The longest piece from a sample that is good enough: found by doubling, then by halving. */
function longestPiece(samples: FitSamples, from: number, end: number, tolerance: number): Piece {
  let good = fitPiece(samples, from, from + 1, tolerance);
  let bad = end + 1;
  for (let length = 2; good.to < end; length *= 2) {
    const to = Math.min(end, from + length);
    const piece = fitPiece(samples, from, to, tolerance);
    if (piece.error > tolerance) {
      bad = to;
      break;
    }
    good = piece;
  }
  while (bad - good.to > 1) {
    const middle = (bad + good.to) >> 1;
    if (middle > end) break;
    const piece = fitPiece(samples, from, middle, tolerance);
    if (piece.error <= tolerance) good = piece;
    else bad = middle;
  }
  return good;
}

/** A piece with even reaches where that is good enough; else the reaches are searched in shrinking steps. */
function fitPiece(samples: FitSamples, from: number, to: number, tolerance: number): Piece {
  const { frames, values, before, after } = samples;
  const dt = frames[to]! - frames[from]!;
  const dv = values[to]! - values[from]!;
  const handles = (r0: number, r1: number): [Handle, Handle] => [
    handle(after[from]!, r0, dt, dv),
    handle(before[to]!, r1, dt, dv),
  ];
  const measure = (r0: number, r1: number, most: number) => {
    const [out, into] = handles(r0, r1);
    return missOf(samples, from, to, out, into, most);
  };
  const reaches = searchReaches((r0, r1) => measure(r0, r1, TRIED), tolerance * ROOM);
  const [out, into] = handles(reaches[0], reaches[1]);
  const told = measure(reaches[0], reaches[1], Infinity);
  return { to, out, into, error: told.error };
}

/** Reaches that make the sum of squares least, by steps that shrink; given up as soon as the tolerance is met. */
function searchReaches(
  measure: (r0: number, r1: number) => Miss,
  tolerance: number,
): readonly [number, number] {
  let [r0, r1] = [THIRD, THIRD];
  let miss = measure(r0, r1);
  for (let step = 0.25; step > 0.008 && miss.error > tolerance; step /= 2) {
    for (let better = true; better && miss.error > tolerance;) {
      better = false;
      for (const [d0, d1] of STEPS) {
        const [t0, t1] = [clampReach(r0 + d0 * step), clampReach(r1 + d1 * step)];
        const tried = measure(t0, t1);
        if (!(tried.squares < miss.squares)) continue;
        [r0, r1, miss, better] = [t0, t1, tried, true];
      }
    }
  }
  return [r0, r1];
}

const STEPS = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
] as const;

function clampReach(reach: number): number {
  return Math.min(MOST_REACH, Math.max(LEAST_REACH, reach));
}

/** A handle by its slope and reach; an upright one is as short as may be, its height being what is searched. */
function handle(slope: number, reach: number, dt: number, dv: number): Handle {
  return Number.isFinite(slope)
    ? { slope, reach: clampReach(reach) }
    : { slope: (reach * dv) / (LEAST_REACH * dt), reach: LEAST_REACH };
}

/** How far a piece is from its samples, at most `most` of them asked. */
function missOf(
  { frames, values }: FitSamples,
  from: number,
  to: number,
  out: Handle,
  into: Handle,
  most: number,
): Miss {
  const [t0, v0] = [frames[from]!, values[from]!];
  const dt = frames[to]! - t0;
  const dv = values[to]! - v0;
  const c1 = out.slope * out.reach * dt;
  const c2 = dv - into.slope * into.reach * dt;
  let [error, squares] = [0, 0];
  const stride = Math.max(1, Math.ceil((to - from) / most));
  for (let k = from + 1; k < to; k += stride) {
    const u = solveBezierTime(out.reach, 1 - into.reach, (frames[k]! - t0) / dt);
    const miss = Math.abs(v0 + bezierValue(c1, c2, dv, u) - values[k]!);
    error = Math.max(error, miss);
    squares += miss * miss;
  }
  return { error, squares };
}
