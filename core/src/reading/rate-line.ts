import { type Curve, type Project } from '../project';
import { advanceJet, type Jet } from '../law';
import { curveCorners, curveJet, hiddenCorners, type CompiledCurve, type JetSample } from '../curve';
import { channelCorners, type Program } from '../evaluate';

/** What is read of a channel: the value, or its first, second or third rate per second. */
export type RateOrder = 0 | 1 | 2 | 3;

/**
 * A channel's value and rates drawn out between its corners: of each piece `[frame, value, speed, acceleration, jerk]` over and over, per second,
 * from just after the corner where it begins to just before the one where it ends. Where two pieces part, the rate steps.
 */
export interface RateLine {
  readonly from: number;
  readonly to: number;
  readonly step: number;
  readonly pieces: readonly Float64Array[];
}
export const RATE_STRIDE = 5;

/** So far beside a corner, past the rounding of its own place, a piece is read; what is left by Taylor's series. */
const BESIDE = 1e-5;
/** Corners nearer than this are one. */
const APART = 1e-6;

const cache = new WeakMap<CompiledCurve, RateLine>();
const driven = new WeakMap<Program, Map<string, RateLine>>();

/** A curve's rates over at least the frames named; made anew only for another curve, step or place. */
export function curveRates(
  source: Curve,
  curve: CompiledCurve,
  from: number,
  to: number,
  step: number,
  secondsPerFrame: number,
): RateLine {
  const known = cache.get(curve);
  if (known && covers(known, from, to, step)) return known;
  const made = drawOut(
    (frame) => curveJet(curve, frame),
    (start, end) => curveCorners(source, start, end),
    { from, to, step },
    secondsPerFrame,
  );
  cache.set(curve, made);
  return made;
}

/** The same for a channel that a driver moves. */
export function drivenRates(
  program: Program,
  project: Project,
  channel: string,
  from: number,
  to: number,
  step: number,
): RateLine {
  let ofProgram = driven.get(program);
  if (!ofProgram) driven.set(program, (ofProgram = new Map<string, RateLine>()));
  const known = ofProgram.get(channel);
  if (known && covers(known, from, to, step)) return known;
  const slot = program.structure.slots.get(channel)!;
  const perSecond = program.context.secondsPerFrame;
  const jet = (frame: number): Jet => {
    const [v, d1, d2, d3] = program.channelRates(slot, frame);
    return [v, d1 * perSecond, d2 * perSecond ** 2, d3 * perSecond ** 3];
  };
  const corners = (start: number, end: number) => channelCorners({ project }, channel, start, end);
  const made = drawOut(jet, corners, { from, to, step }, perSecond);
  ofProgram.set(channel, made);
  return made;
}

function covers(known: RateLine, from: number, to: number, step: number): boolean {
  return known.step === step && known.from <= from && known.to >= to;
}

/** Corners that lie denser than the samples are not told apart: the samples show as much. */
function drawOut(
  jet: (frame: number) => Jet,
  cornersIn: (from: number, to: number) => readonly number[],
  asked: { readonly from: number; readonly to: number; readonly step: number },
  secondsPerFrame: number,
): RateLine {
  const half = (asked.to - asked.from) / 2;
  const [from, to] = [asked.from - half, asked.to + half];
  const { step } = asked;
  const told = apart([from, ...cornersIn(from, to), to].filter((frame) => frame >= from && frame <= to));
  const known = told.length * step > 2 * (to - from) ? [from, to] : told;
  const sampled = sampleBetween(jet, known, step);
  const stops = apart([...known, ...hiddenCorners(jet, sampled)]);
  const samples = stops.length > known.length ? sampleBetween(jet, stops, step) : sampled;
  const pieces = samples.map((piece, i) => {
    const points = new Float64Array(piece.length * RATE_STRIDE);
    const put = (k: number, frame: number, [v, d1, d2, d3]: Jet) => {
      const at = k * RATE_STRIDE;
      points[at] = frame;
      points[at + 1] = v;
      points[at + 2] = d1 / secondsPerFrame;
      points[at + 3] = d2 / secondsPerFrame ** 2;
      points[at + 4] = d3 / secondsPerFrame ** 3;
    };
    piece.forEach(({ frame, jet: there }, k) => put(k, frame, there));
    for (const [k, stop] of [[0, stops[i]!] as const, [piece.length - 1, stops[i + 1]!] as const])
      put(k, stop, advanceJet(piece[k]!.jet, stop - piece[k]!.frame));
    return points;
  });
  return { from, to, step, pieces };
}

function apart(frames: number[]): readonly number[] {
  return frames.sort((a, b) => a - b).filter((frame, i, all) => i === 0 || frame - all[i - 1]! > APART);
}

/** A function's samples between each two stops: just inside of both, and every `step` between them. */
function sampleBetween(
  jet: (frame: number) => Jet,
  stops: readonly number[],
  step: number,
): readonly (readonly JetSample[])[] {
  return stops.slice(1).map((end, i) => {
    const start = stops[i]!;
    const on = Math.min(BESIDE, (end - start) / 4);
    const frames = [start + on];
    for (let k = Math.floor(start / step) + 1; k * step < end - APART; k++)
      if (k * step > start + APART) frames.push(k * step);
    return [...frames, end - on].map((frame) => ({ frame, jet: jet(frame) }));
  });
}

/** Least and greatest of an order between two frames; what is not finite does not count. */
export function rateExtent(
  line: RateLine,
  order: RateOrder,
  from: number,
  to: number,
): { readonly low: number; readonly high: number } {
  let low = Infinity;
  let high = -Infinity;
  for (const piece of line.pieces) {
    for (let i = 0; i < piece.length; i += RATE_STRIDE) {
      const value = piece[i + 1 + order]!;
      if (piece[i]! < from || piece[i]! > to || !Number.isFinite(value)) continue;
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
  }
  return { low, high };
}

/** A place where an order steps: from one value to another, either may be infinite. */
export interface RateStep {
  readonly frame: number;
  readonly before: number;
  readonly after: number;
}

/** Where an order steps by more than `least`. */
export function rateSteps(line: RateLine, order: RateOrder, least: number): readonly RateStep[] {
  return line.pieces.slice(1).flatMap((piece, i): RateStep[] => {
    const last = line.pieces[i]!;
    const before = last[last.length - RATE_STRIDE + 1 + order]!;
    const after = piece[1 + order]!;
    return Math.abs(after - before) > least || Number.isNaN(after - before)
      ? [{ frame: piece[0]!, before, after }]
      : [];
  });
}

/** What an order has just before a frame where a piece ends; null where none does. */
export function lastBefore({ pieces }: RateLine, order: RateOrder, frame: number): number | null {
  const piece = pieces.find((each) => Math.abs(each[each.length - RATE_STRIDE]! - frame) <= APART);
  return piece ? piece[piece.length - RATE_STRIDE + 1 + order]! : null;
}

/** So near to the farthest, as a share of it, a plateau still is it. */
const LEVEL = 1e-6;

/** Where an order is farthest beyond a band between two frames, of a plateau its end; null where it stays within. */
export function peakBeyond(
  line: RateLine,
  order: RateOrder,
  band: { readonly low: number; readonly high: number },
  from: number,
  to: number,
): { readonly frame: number; readonly value: number } | null {
  const beyond = (piece: Float64Array, i: number): number => {
    const [frame, value] = [piece[i]!, piece[i + 1 + order]!];
    if (frame < from || frame > to || !Number.isFinite(value)) return 0;
    return Math.max(band.low - value, value - band.high);
  };
  const { pieces } = line;
  let most = (band.high - band.low) * LEVEL;
  let found = -1;
  pieces.forEach((piece, n) => {
    for (let i = 0; i < piece.length; i += RATE_STRIDE)
      if (beyond(piece, i) > most * (1 + LEVEL)) [most, found] = [beyond(piece, i), n];
  });
  if (found < 0) return null;
  const level = most * (1 - LEVEL);
  while (pieces[found + 1] && beyond(pieces[found + 1]!, 0) >= level) found += 1;
  const piece = pieces[found]!;
  let at = piece.length - RATE_STRIDE;
  while (beyond(piece, at) < level) at -= RATE_STRIDE;
  return { frame: piece[at]!, value: piece[at + 1 + order]! };
}
