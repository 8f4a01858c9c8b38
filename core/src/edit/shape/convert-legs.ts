import { greatestOf, leastOf } from '../../project';
import type { Curve, Key, Project } from '../../project';
import { compileKeys, keyedJet, keyedValue, legLaw, type CurveContext } from '../../curve';
import { changeCurves, framesByChannel, withKeys, type KeyRef } from '../curves';
import { curveContext } from '../curve-context';
import { fitFunction, type FitSamples, type Fitted } from './fit-keys';

/** Of a leg's height: how far its conversion may be off where nothing else is said. */
export const CONVERT_TOLERANCE = 1e-3;

/** What a change of many keys into others comes to. */
export interface ShapeEdit {
  readonly project: Project;
  readonly keysBefore: number;
  readonly keysAfter: number;
  /** The greatest error in the channel's unit, with its channel and frame. */
  readonly error: number;
  readonly at: KeyRef | null;
}

/** Samples a leg is fitted by. */
const SAMPLES = 240;
/** So far beside a sample, in shares of the leg, its slopes are read, past the rounding of a break's own place. */
const NUDGE = 1e-9;
/** So many frames may come of rounding. */
const ROUNDING = 1e-9;
/** So many times the leg's chord is as good as upright. */
const UPRIGHT = 1000;
const STILL = { mode: 'hold', count: null, pin: null } as const;

/**
 * Turns the legs after some keys into Curve legs with the fewest keys that keep within `tolerance`, a share of each leg's height. Free falls are
 * curves already and become the very same; holds and curves stay as they are.
 */
export function convertLegs(
  project: Project,
  refs: readonly KeyRef[],
  tolerance: number = CONVERT_TOLERANCE,
): ShapeEdit {
  const context = curveContext(project);
  const named = framesByChannel(refs);
  let [error, before, after] = [0, 0, 0];
  let at: KeyRef | null = null;
  const next = changeCurves(project, [...named.keys()], (curve) => {
    const frames = named.get(curve.channel)!;
    const keys: Key[] = [];
    curve.keys.forEach((key, i) => {
      const to = curve.keys[i + 1];
      const start = keys.pop() ?? key;
      const fitted = to && frames.has(key.frame) ? convertLeg(start, to, tolerance, context) : null;
      if (!fitted || !to) {
        keys.push(start, ...(to ? [to] : []));
        return;
      }
      if (fitted.error > error) [error, at] = [fitted.error, { channel: curve.channel, frame: fitted.at }];
      keys.push(...fitted.keys);
    });
    if (keys.every((key, i) => key === curve.keys[i])) return curve;
    before += curve.keys.length;
    after += keys.length;
    return withKeys(curve, keys);
  });
  return { project: next, keysBefore: before, keysAfter: after, error, at };
}

/**
 * A leg between two keys as curve keys, those two first and last, and one at the frame `through` where it is given; null for a leg that is a
 * curve or a hold.
 */
export function convertLeg(
  from: Key,
  to: Key,
  tolerance: number,
  context: CurveContext,
  through?: number,
): Fitted | null {
  if (from.leg.kind === 'curve' || from.leg.kind === 'hold') return null;
  const pair = { keys: [from, to], before: STILL, after: STILL };
  const height = Math.abs(to.value - from.value) || heightOf(pair, context);
  const exact = compileKeys(pair, context);
  const fitted = fitFunction(
    legSamples(pair, context, through),
    (frame) => keyedValue(exact, frame, 0),
    Math.max(tolerance * height, 1e-12),
    context,
  );
  const ends = fitted.keys.length - 1;
  const keys = fitted.keys.map((key, i): Key => {
    if (i === 0)
      return { ...from, out: key.out, joined: from.joined && from.in.slope === key.out.slope, leg: key.leg };
    if (i === ends) return { ...to, in: key.in, joined: false };
    return key;
  });
  return { ...fitted, keys };
}

function heightOf(pair: Pick<Curve, 'keys' | 'before' | 'after'>, context: CurveContext): number {
  const { values } = legSamples(pair, context);
  return greatestOf(values) - leastOf(values);
}

function legSamples(
  pair: Pick<Curve, 'keys' | 'before' | 'after'>,
  context: CurveContext,
  through?: number,
): FitSamples {
  const [a, b] = [pair.keys[0]!, pair.keys[1]!];
  const keys = compileKeys(pair, context);
  const dt = b.frame - a.frame;
  const breaks = legLaw(a.leg)?.breaks ?? [];
  const middle = through === undefined ? [] : [(through - a.frame) / dt];
  const stops = [0, ...breaks, ...middle, 1]
    .sort((x, y) => x - y)
    .filter((share, i, all) => i === 0 || share - all[i - 1]! > NUDGE);
  const shares = [0, ...stops.slice(1).flatMap((to, k) => sharesOf(stops[k]!, to))];
  const frames = Float64Array.from(shares, (share) =>
    share === 1
      ? b.frame
      : through !== undefined && share === middle[0]
        ? through
        : unlessWhole(a.frame + share * dt),
  );
  const last = frames.length - 1;
  const nudge = NUDGE * dt;
  const chord = Math.abs(b.value - a.value) / dt;
  const slope = (frame: number) => {
    const [, rate] = keyedJet(keys, frame, 0);
    return Math.abs(rate) > UPRIGHT * chord && chord > 0 ? Math.sign(rate) * Infinity : rate;
  };
  return {
    frames,
    ...(through === undefined ? {} : { through }),
    values: frames.map((frame) => keyedValue(keys, frame, 0)),
    before: frames.map((frame, i) =>
      i === last ? keyedJet(keys, frame, 0, true)[1] : i === 0 ? 0 : slope(frame - nudge),
    ),
    after: frames.map((frame, i) => (i === last ? 0 : slope(i === 0 ? frame : frame + nudge))),
  };
}

/** A frame, or the whole one that it differs from by rounding. */
function unlessWhole(frame: number): number {
  const whole = Math.round(frame);
  return Math.abs(frame - whole) < ROUNDING ? whole : frame;
}

/** Shares of a leg between two of its breaks, denser towards both, where a law may stand upright. */
function sharesOf(from: number, to: number): readonly number[] {
  const count = Math.max(8, Math.round(SAMPLES * (to - from)));
  return Array.from({ length: count }, (_, i) =>
    i === count - 1 ? to : from + ((to - from) * (1 - Math.cos((Math.PI * (i + 1)) / count))) / 2,
  );
}
