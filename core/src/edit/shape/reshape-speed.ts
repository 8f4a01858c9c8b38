import type { Curve, Key, LawLeg, Project } from '../../project';
import { resolveSide } from '../../curve';
import { changeCurves, type KeyRef } from '../curves';
import { curveContext } from '../curve-context';

type SideName = 'in' | 'out';

/**
 * What stays while speed is reshaped. `places`: every key keeps its value, and only how the speed is spread over the legs changes. `free`: the
 * area under the speed is the way that is gone, so the keys behind move along.
 */
export type AreaLock = 'places' | 'free';

/** Sides of a key whose speed can be changed by itself: those with a Curve leg. */
function curveSides(curve: Curve, index: number): readonly SideName[] {
  const sides: SideName[] = [];
  if (index > 0 && curve.keys[index - 1]!.leg.kind === 'curve') sides.push('in');
  if (index < curve.keys.length - 1 && curve.keys[index]!.leg.kind === 'curve') sides.push('out');
  return sides;
}

/**
 * Changes how fast a curve passes a key, by `slopes` (value per frame), on the named side, and on both where the key is joined. With the
 * area free the speed of each leg beside gets a ramp more, from the change at the key down to nothing at the leg's other end, and
 * what lies behind moves by the area under it, half the change times the leg's length (for reaches of a third).
 */
export function reshapeKeySpeed(
  project: Project,
  { channel, frame }: KeyRef,
  side: SideName,
  slopes: number,
  lock: AreaLock,
): Project {
  const context = curveContext(project);
  return changeCurves(project, [channel], (curve) => {
    const index = curve.keys.findIndex((key) => key.frame === frame);
    const key = curve.keys[index];
    const open = key ? curveSides(curve, index) : [];
    const changed = key?.joined ? open : open.filter((name) => name === side);
    if (!key || changed.length === 0 || slopes === 0) return curve;
    const base = resolveSide(curve, index, changed.includes(side) ? side : changed[0]!, context).slope;
    const set = (name: SideName) => ({ ...key[name], mode: 'set' as const, slope: base + slopes });
    const next: Key = {
      ...key,
      ...(changed.includes('in') || key.joined ? { in: set('in') } : {}),
      ...(changed.includes('out') || key.joined ? { out: set('out') } : {}),
    };
    const lengthOf = (from: number) => curve.keys[from + 1]!.frame - curve.keys[from]!.frame;
    const atKey = lock === 'free' && changed.includes('in') ? (slopes * lengthOf(index - 1)) / 2 : 0;
    const behind = atKey + (lock === 'free' && changed.includes('out') ? (slopes * lengthOf(index)) / 2 : 0);
    const keys = curve.keys.map((each, i) => {
      if (i === index) return atKey === 0 ? next : { ...next, value: next.value + atKey };
      return i > index && behind !== 0 ? { ...each, value: each.value + behind } : each;
    });
    return { ...curve, keys };
  });
}

const THIRD = 1 / 3;

function isRamped(leg: Key['leg']): leg is LawLeg {
  return leg.kind === 'law' && (leg.law === 'trapezoid' || leg.law === 's-curve');
}

/** The leg after a key where it runs up, cruises and slows down: its shares, and its cruising speed (value per frame). */
export function rampsOf(curve: Curve, index: number) {
  const key = curve.keys[index];
  const next = curve.keys[index + 1];
  if (!key || !next || !isRamped(key.leg)) return null;
  const { accelerate = THIRD, decelerate = THIRD } = key.leg;
  const length = next.frame - key.frame;
  const rise = next.value - key.value;
  return {
    accelerate,
    decelerate,
    length,
    rise,
    cruise: rise / (1 - (accelerate + decelerate) / 2) / length,
  };
}

/** A cruise is at least as fast as even motion, and less than twice as fast: then it is all ramp. */
function sharesFor(over: number): number {
  return Math.min(1, Math.max(0, 2 * (1 - 1 / over)));
}

/**
 * Gives a trapezoid or s-curve another cruising speed (value per frame). With places kept its ramps get longer or shorter, in the same proportion;
 * with the area free they stay and the way that is gone changes, and with it all keys behind.
 */
export function reshapeCruise(
  project: Project,
  { channel, frame }: KeyRef,
  cruise: number,
  lock: AreaLock,
): Project {
  return changeRamped(project, channel, frame, (key, ramps) => {
    if (lock === 'free') return { leg: key.leg, rise: (ramps.rise * cruise) / ramps.cruise };
    const both = sharesFor((cruise * ramps.length) / ramps.rise);
    const now = ramps.accelerate + ramps.decelerate;
    const share = now > 0 ? ramps.accelerate / now : 1 / 2;
    return {
      leg: { ...key.leg, accelerate: both * share, decelerate: both * (1 - share) },
      rise: ramps.rise,
    };
  });
}

/**
 * Gives one ramp of a trapezoid or s-curve another length, a share of the leg. With places kept the cruising speed follows; with the area free it
 * stays and the way that is gone changes.
 */
export function reshapeRamp(
  project: Project,
  { channel, frame }: KeyRef,
  which: 'accelerate' | 'decelerate',
  share: number,
  lock: AreaLock,
): Project {
  return changeRamped(project, channel, frame, (key, ramps) => {
    const other = which === 'accelerate' ? ramps.decelerate : ramps.accelerate;
    const kept = Math.min(1 - other, Math.max(0, share));
    const leg = { ...key.leg, [which]: kept };
    const rise = lock === 'places' ? ramps.rise : ramps.cruise * ramps.length * (1 - (kept + other) / 2);
    return { leg, rise };
  });
}

type Ramps = NonNullable<ReturnType<typeof rampsOf>>;

function changeRamped(
  project: Project,
  channel: string,
  frame: number,
  change: (key: Key, ramps: Ramps) => { readonly leg: Key['leg']; readonly rise: number },
): Project {
  return changeCurves(project, [channel], (curve) => {
    const index = curve.keys.findIndex((key) => key.frame === frame);
    const ramps = rampsOf(curve, index);
    if (!ramps || ramps.rise === 0) return curve;
    const { leg, rise } = change(curve.keys[index]!, ramps);
    const further = rise - ramps.rise;
    if (!Number.isFinite(further)) return curve;
    const keys = curve.keys.map((key, i) => {
      if (i === index) return { ...key, leg };
      return i > index && further !== 0 ? { ...key, value: key.value + further } : key;
    });
    return { ...curve, keys };
  });
}
