import type { KeyedCurve, OutsideMode } from '../project';

/**
 * The time before the first or after the last key (contract §4), reduced to a place among the keys. A pin
 * shortens the cycle that repeats; `count` cycles on, the value stays.
 */
export interface CompiledOutside {
  readonly side: 'before' | 'after';
  readonly mode: OutsideMode;
  /** Frames and values of the cycle's ends. */
  readonly start: number;
  readonly end: number;
  readonly carry: number;
  readonly count: number;
  /** Slope per frame that `run-on` goes on with. */
  readonly slope: number;
}

/** Where to read: a frame among the keys, what to add, and how time runs there. */
export interface Located {
  frame: number;
  lift: number;
  reversed: boolean;
  /** Rates are read just before `frame`. */
  left: boolean;
  slope: number;
  offset: number;
  /** No rates but `slope`: a hold, a run-on, or past the last repetition. */
  still: boolean;
}

/** Whether an outside repeats its keys: only then do a count and a pin mean something. */
export function repeats(mode: OutsideMode): boolean {
  return mode === 'loop' || mode === 'loop-carry' || mode === 'swing';
}

export function compileOutside(curve: KeyedCurve, side: 'before' | 'after', slope: number): CompiledOutside {
  const { keys } = curve;
  const { mode, count, pin } = curve[side];
  const first = keys[0];
  const last = keys[keys.length - 1];
  const pinned =
    pin !== null && mode !== 'hold' && mode !== 'run-on' ? keys.find((key) => key.frame === pin) : undefined;
  const start = side === 'after' ? (pinned ?? first) : first;
  const end = side === 'before' ? (pinned ?? last) : last;
  return {
    side,
    mode,
    start: start?.frame ?? 0,
    end: end?.frame ?? 0,
    carry: mode === 'loop-carry' ? (end?.value ?? 0) - (start?.value ?? 0) : 0,
    count: count ?? Infinity,
    slope,
  };
}

/** Fills `at` for a frame at or beyond the outer key. At the key itself the time just past it is meant. */
export function locateOutside(outside: CompiledOutside, frame: number, at: Located, left = false): void {
  at.lift = 0;
  at.reversed = false;
  at.left = left;
  at.slope = 0;
  at.offset = 0;
  at.still = true;
  const after = outside.side === 'after';
  const edge = after ? outside.end : outside.start;
  const period = outside.end - outside.start;
  if (outside.mode === 'hold' || !(period > 0)) {
    at.frame = edge;
    return;
  }
  if (outside.mode === 'run-on') {
    at.frame = edge;
    at.slope = outside.slope;
    at.offset = frame - edge;
    return;
  }
  if (isPast(outside, frame, edge, period, left)) {
    locateCycle(outside, outside.count, at);
    return;
  }
  at.still = false;
  if (outside.mode === 'swing') locateSwing(outside, frame, period, at, left);
  else locateLoop(outside, frame, period, at, left);
}

function isPast(
  outside: CompiledOutside,
  frame: number,
  edge: number,
  period: number,
  left: boolean,
): boolean {
  if (outside.count === Infinity) return false;
  const reach = outside.count * period;
  if (outside.side === 'after') return left ? frame > edge + reach : frame >= edge + reach;
  return left ? frame <= edge - reach : frame < edge - reach;
}

/** The place that `cycles` repetitions beyond the outer key come to, the outer end of each cycle included. */
function locateCycle(outside: CompiledOutside, cycles: number, at: Located): void {
  const { start, end, carry } = outside;
  const period = end - start;
  const whole = Math.ceil(cycles);
  const back = (whole - cycles) * period;
  if (outside.side === 'after') {
    const mirrored = outside.mode === 'swing' && whole % 2 === 1;
    at.frame = mirrored ? start + back : end - back;
    at.lift = whole * carry;
  } else {
    const mirrored = outside.mode === 'swing' && whole % 2 === 1;
    at.frame = mirrored ? end - back : start + back;
    at.lift = -whole * carry;
  }
}

function locateLoop(
  outside: CompiledOutside,
  frame: number,
  period: number,
  at: Located,
  left: boolean,
): void {
  const { start, end } = outside;
  let cycle = Math.floor((frame - start) / period);
  let place = frame - cycle * period;
  if (left ? place > end : place >= end) place = frame - ++cycle * period;
  if (left ? place <= start : place < start) place = frame - --cycle * period;
  at.frame = Math.min(end, Math.max(start, place));
  at.lift = cycle * outside.carry;
}

function locateSwing(
  outside: CompiledOutside,
  frame: number,
  period: number,
  at: Located,
  left: boolean,
): void {
  const after = outside.side === 'after';
  const x = after ? frame - outside.end : outside.start - frame;
  const outward = after !== left;
  let half = Math.floor(x / period);
  if (!outward && half * period === x && half > 0) half--;
  const past = Math.max(0, Math.min(period, x - half * period));
  const mirrored = half % 2 === 0;
  at.reversed = mirrored;
  if (after) at.frame = mirrored ? outside.end - past : outside.start + past;
  else at.frame = mirrored ? outside.start + past : outside.end - past;
  at.left = mirrored ? !left : left;
}
