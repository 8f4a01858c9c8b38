import type { Curve, Key, KeyedCurve, Leg, Project, Treatment } from '../../project';
import { resolveSide, type CurveContext } from '../../curve';
import { changeCurves } from '../curves';
import { curveContext } from '../curve-context';
import { mappingOf, openChannels, type TimeEdit } from './retime';
import type { Span } from './stretch';
import { shiftFrame } from './time-map';
import { turnedSide } from './turned-side';

/**
 * How long after its key a jump stands that a hold, read backwards, has at its beginning: two keys cannot share a frame.
 */
const JUMP = 4e-6;

/**
 * Turns time round within a span: what was at `f` is then at `start + end − f`, with sides, legs, and, where all keys of a curve lie
 * in the span, what is outside them. A hold read backwards jumps at its beginning; where no other hold leads up to that, a second key
 * right after the first one says so. Noise and every n-th frame have no backwards; they stay as they are.
 */
export function reverseTime(project: Project, channels: readonly string[], span: Span): TimeEdit {
  const context = curveContext(project);
  let keys = 0;
  let touched = 0;
  const open = openChannels(project, channels);
  const next = changeCurves(project, open, (curve) => {
    const reversed = reverseKeys(curve, span, context);
    if (reversed === curve) return curve;
    touched += 1;
    keys += curve.keys.filter(({ frame }) => frame >= span.start && frame <= span.end).length;
    const whole = isWhole(curve, span);
    return whole
      ? { ...reversed, treatments: curve.treatments.map((each) => reverseTreatment(each, span, context)) }
      : reversed;
  });
  const turn = (frame: number) =>
    frame >= span.start && frame <= span.end ? turnedFrame(span, frame) : frame;
  return { project: next, mapping: mappingOf(open, turn), channels: touched, keys, refused: [] };
}

/** A frame seen from the other end of a span. */
function turnedFrame({ start, end }: Span, frame: number): number {
  return shiftFrame(start, shiftFrame(end, -frame));
}

function isWhole({ keys }: KeyedCurve, span: Span): boolean {
  return keys.every(({ frame }) => frame >= span.start && frame <= span.end);
}

function reverseKeys<T extends KeyedCurve>(curve: T, span: Span, context: CurveContext): T {
  const first = curve.keys.findIndex(({ frame }) => frame >= span.start);
  const count = curve.keys.filter(({ frame }) => frame >= span.start && frame <= span.end).length;
  const whole = count === curve.keys.length;
  if (count === 0 || (count === 1 && !whole)) return curve;
  const source = curve.keys.slice(first, first + count);
  const turn = (frame: number) => turnedFrame(span, frame);
  const pins = new Set([curve.before.pin, curve.after.pin]);
  const moments = momentsOf(source);
  const keys = moments
    .map((moment, i) => momentReversed(moments, i, turn, pins.has(moment.key.frame)))
    .reverse()
    .flat();
  const left = curve.keys.slice(0, first);
  const right = curve.keys.slice(first + count);
  keys[keys.length - 1] = { ...keys.at(-1)!, leg: source.at(-1)!.leg };
  const outside = whole
    ? { before: turnedPin(curve.after, turn), after: turnedPin(curve.before, turn) }
    : { before: movedPin(curve.before, source, turn), after: movedPin(curve.after, source, turn) };
  const reversed = { ...curve, ...outside, keys: [...left, ...keys, ...right] };
  return exactSides(curve, first, count, reversed, turn, context);
}

/** A key, and whether a jump stands right after it: then the leg holds the value that comes after the jump. */
interface Moment {
  readonly key: Key;
  /** The value held after the jump, where there is one. */
  readonly jump: number | null;
}

/** Takes keys that only make a jump at the beginning of a hold together with their key. */
function momentsOf(keys: readonly Key[]): Moment[] {
  const moments: Moment[] = [];
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i]!;
    const next = keys[i + 1];
    const jumps =
      next &&
      i + 2 < keys.length &&
      key.leg.kind === 'hold' &&
      next.leg.kind === 'hold' &&
      next.frame - key.frame < JUMP * 2;
    moments.push({ key, jump: jumps ? next.value : null });
    if (jumps) i += 1;
  }
  return moments;
}

/** The key or keys that a moment becomes; its leg is that of the moment before it, read backwards. */
function momentReversed(
  moments: readonly Moment[],
  i: number,
  turn: (frame: number) => number,
  pinned: boolean,
): Key[] {
  const { key, jump } = moments[i]!;
  const before = moments[i - 1];
  const own: Key = {
    ...key,
    frame: turn(key.frame),
    in: turnedSide(key.out),
    out: turnedSide(key.in),
    leg: backwards((before ?? moments[i]!).key.leg),
  };
  if (!before || before.key.leg.kind !== 'hold') return [own];
  const held = before.jump ?? before.key.value;
  if (held === key.value) return [own];
  const heldInto = !pinned && key.leg.kind === 'hold' && jump === null && i + 1 < moments.length;
  if (heldInto) return [{ ...own, value: held }];
  return [own, { ...own, frame: own.frame + JUMP, value: held }];
}

/** Whether a curve has treatments that cannot be read backwards. */
export function hasNoBackwards(curve: Curve): boolean {
  return curve.treatments.some(({ kind, muted }) => !muted && (kind === 'noise' || kind === 'every'));
}

/** A leg read from its end to its beginning. */
export function backwards(leg: Leg): Leg {
  switch (leg.kind) {
    case 'curve':
    case 'hold':
    case 'ballistic':
      return leg;
    case 'ease':
      return leg.slow === 'both' ? leg : { ...leg, slow: leg.slow === 'start' ? 'end' : 'start' };
    case 'law': {
      const { accelerate, decelerate, ...rest } = leg;
      return {
        ...rest,
        ...(decelerate === undefined ? {} : { accelerate: decelerate }),
        ...(accelerate === undefined ? {} : { decelerate: accelerate }),
      };
    }
  }
}

function turnedPin(outside: Curve['before'], turn: (frame: number) => number): Curve['before'] {
  return outside.pin === null ? outside : { ...outside, pin: turn(outside.pin) };
}

function movedPin(
  outside: Curve['before'],
  source: readonly Key[],
  turn: (frame: number) => number,
): Curve['before'] {
  return source.some((key) => key.frame === outside.pin) ? turnedPin(outside, turn) : outside;
}

/**
 * Smooth and bounded sides look at their neighbours, and at seams not the same way from both ends: where such a side would get
 * another slope or reach than it had, it is set to what it had.
 */
function exactSides<T extends KeyedCurve>(
  before: KeyedCurve,
  first: number,
  count: number,
  after: T,
  turn: (frame: number) => number,
  context: CurveContext,
): T {
  const indexAt = new Map(after.keys.map((key, i) => [key.frame, i]));
  let changed = false;
  const keys = [...after.keys];
  for (let i = first; i < first + count; i++) {
    const to = indexAt.get(turn(before.keys[i]!.frame));
    if (to === undefined) continue;
    for (const side of ['in', 'out'] as const) {
      const from = side === 'in' ? 'out' : 'in';
      const reachesOut = side === 'in' ? i === first + count - 1 : i === first;
      if (reachesOut) continue;
      const was = resolveSide(before, i, from, context);
      const is = resolveSide(after, to, side, context);
      if (near(is.slope, -was.slope) && near(is.reach, was.reach)) continue;
      changed = true;
      const set = { mode: 'set' as const, slope: 0 - was.slope, reach: was.reach };
      keys[to] = { ...keys[to]!, [side]: set, joined: false };
    }
  }
  return changed ? { ...after, keys } : after;
}

function near(a: number, b: number): boolean {
  return Math.abs(a - b) <= 1e-12 * Math.max(1, Math.abs(a), Math.abs(b));
}

function reverseTreatment(treatment: Treatment, span: Span, context: CurveContext): Treatment {
  const weight =
    typeof treatment.weight === 'number' ? treatment.weight : reverseKeys(treatment.weight, span, context);
  return treatment.kind === 'delay'
    ? { ...treatment, weight, frames: -treatment.frames }
    : { ...treatment, weight };
}
