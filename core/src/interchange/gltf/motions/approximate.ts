import type { CurveKey } from './leg-curves';

/**
 * A motion of some numbers over one leg, as a file means it: `read(t)` at a share 0 … 1 of it, `near` the numbers just before for
 * those that have several names (angles), and how far two sets are apart, where 1 is as much as may be.
 */
export interface LegMotion {
  readonly from: number;
  readonly to: number;
  /** In so many equal steps it can be followed without losing count of half turns. */
  readonly steps: number;
  readonly read: (share: number, near: readonly number[]) => readonly number[];
  readonly error: (share: number, shown: readonly number[]) => number;
}

/** What an approximation came to: keys for each number, and the greatest error, 1 being as much as may be. */
export interface Approximated {
  readonly keys: readonly CurveKey[][];
  readonly error: number;
}

/** Shares of a leg at which a piece is compared with what it stands for. */
const LOOKED_AT = [0.06, 0.2, 0.35, 0.5, 0.65, 0.8, 0.94];
/** Shorter pieces than this share of a frame are not made. */
const SHORTEST = 1 / 64;
/** A leg shorter than this is a jump. */
const JUMP = 1e-3;
/** Slopes are read off over this share of a piece. */
const SLOPE_STEP = 1e-3;

interface End {
  readonly share: number;
  readonly value: readonly number[];
}

/**
 * Puts legs that follow each other into keys: straight where that is good enough, else through cubics with the slopes that the motion
 * has at their ends, and where that is not either, halved.
 */
export function approximate(legs: readonly LegMotion[], first: readonly number[]): Approximated {
  const keys: { frame: number; value: readonly number[]; before: Slopes; after: Slopes }[] = [
    { frame: legs[0]!.from, value: first, before: 'straight', after: 'straight' },
  ];
  let worst = 0;
  let near = first;
  for (const leg of legs) {
    const ends = [{ share: 0, value: near }];
    for (let step = 1; step <= leg.steps; step++) {
      near = leg.read(step / leg.steps, near);
      ends.push({ share: step / leg.steps, value: near });
    }
    const jump: Piece = { to: ends.at(-1)!, after: 'straight', before: 'straight', error: 0 };
    const whole = leg.to - leg.from < JUMP ? jump : piece(leg, ends[0]!, ends.at(-1)!);
    const pieces = whole.error <= 1 ? [whole] : merged(leg, ends);
    for (const { to, before, after, error } of pieces) {
      worst = Math.max(worst, error);
      keys.at(-1)!.after = after;
      keys.push({ frame: at(leg, to.share), value: to.value, before, after: 'straight' });
    }
  }
  const slope = (slopes: Slopes, n: number) => (slopes === 'straight' ? slopes : slopes[n]!);
  return {
    keys: first.map((_, n) =>
      keys.map(({ frame, value, before, after }) => ({
        frame,
        value: value[n]!,
        before: slope(before, n),
        after: slope(after, n),
      })),
    ),
    error: worst,
  };
}

type Slopes = 'straight' | readonly number[];

/** A leg between two of its ends; `after` is the slope with which it leaves, `before` that with which it arrives. */
interface Piece {
  readonly to: End;
  readonly after: Slopes;
  readonly before: Slopes;
  readonly error: number;
}

function at({ from, to }: LegMotion, share: number): number {
  return share === 1 ? to : from + (to - from) * share;
}

function piece(leg: LegMotion, a: End, b: End): Piece {
  const straight = LOOKED_AT.map((u) => mix(a.value, b.value, u));
  const off = greatest(leg, a, b, straight);
  if (off <= 1) return { to: b, after: 'straight', before: 'straight', error: off };
  const frames = at(leg, b.share) - at(leg, a.share);
  const leaves = slopeAt(leg, a, b, 1, frames);
  const arrives = slopeAt(leg, b, a, -1, frames);
  const cubic = LOOKED_AT.map((u) =>
    a.value.map((value, n) => hermite(value, leaves[n]! * frames, b.value[n]!, arrives[n]! * frames, u)),
  );
  return { to: b, after: leaves, before: arrives, error: greatest(leg, a, b, cubic) };
}

/** A leg in the fewest of its equal steps that are good enough, each step halved where it is not. */
function merged(leg: LegMotion, ends: readonly End[]): Piece[] {
  const pieces: Piece[] = [];
  for (let i = 0; i < ends.length - 1;) {
    let best: Piece | null = null;
    let next = i + 1;
    for (let to = ends.length - 1; to > i && !best; to--) {
      const tried = piece(leg, ends[i]!, ends[to]!);
      if (tried.error <= 1) [best, next] = [tried, to];
    }
    if (best) pieces.push(best);
    else pieces.push(...halved(leg, ends[i]!, ends[next]!));
    i = next;
  }
  return pieces;
}

function halved(leg: LegMotion, a: End, b: End): Piece[] {
  const whole = piece(leg, a, b);
  if (whole.error <= 1 || at(leg, b.share) - at(leg, a.share) < 2 * SHORTEST) return [whole];
  const share = (a.share + b.share) / 2;
  const middle = { share, value: leg.read(share, a.value) };
  return [...halved(leg, a, middle), ...halved(leg, middle, b)];
}

function greatest(leg: LegMotion, a: End, b: End, shown: readonly (readonly number[])[]): number {
  return Math.max(...LOOKED_AT.map((u, i) => leg.error(a.share + (b.share - a.share) * u, shown[i]!)));
}

/** The slope per frame at an end of a piece, towards its other end: from three places beside it. */
function slopeAt(leg: LegMotion, end: End, other: End, way: 1 | -1, frames: number): readonly number[] {
  const step = Math.abs(other.share - end.share) * SLOPE_STEP * way;
  const one = leg.read(end.share + step, end.value);
  const two = leg.read(end.share + 2 * step, one);
  return end.value.map((value, n) => (way * (4 * one[n]! - 3 * value - two[n]!)) / (2 * SLOPE_STEP * frames));
}

function mix(a: readonly number[], b: readonly number[], u: number): number[] {
  return a.map((value, n) => value + (b[n]! - value) * u);
}

/** Hermite's cubic from a value with its slope to another, slopes for the whole of the leg, at a share u of it. */
export function hermite(v0: number, m0: number, v1: number, m1: number, u: number): number {
  const w = 1 - u;
  return v0 * (1 + 2 * u) * w * w + m0 * u * w * w + v1 * u * u * (3 - 2 * u) - m1 * u * u * w;
}
