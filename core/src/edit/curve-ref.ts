import type { Curve, KeyedCurve } from '../project';

/**
 * The address of a curve in the active clip: a channel's own, or the weight over time of one of its treatments, which is edited like a
 * channel's. Every kind of curve that can be edited is one more member here; the rest of the house knows addresses by name.
 */
export type CurveRef =
  | { readonly of: 'channel'; readonly channel: string }
  | { readonly of: 'weight'; readonly channel: string; readonly treatment: number };

/** `#` stands in no id and no property, so that no channel is called so. */
const WEIGHT_MARK = '#weight-';

/** An address as one word, by which selections, rows and caches know the curve: a channel's is the channel itself. */
export function curveName(ref: CurveRef): string {
  return ref.of === 'channel' ? ref.channel : `${ref.channel}${WEIGHT_MARK}${ref.treatment}`;
}

/** The address that a name means. */
export function curveRef(name: string): CurveRef {
  const at = name.lastIndexOf(WEIGHT_MARK);
  if (at < 0) return { of: 'channel', channel: name };
  return { of: 'weight', channel: name.slice(0, at), treatment: Number(name.slice(at + WEIGHT_MARK.length)) };
}

/** The channel on whose curve a named curve lies: itself, or the one whose treatment it weighs. */
export function ownerOf(name: string): string {
  return name.includes(WEIGHT_MARK) ? curveRef(name).channel : name;
}

/** The name of the weight of a channel's treatment. */
export function weightChannel(channel: string, treatment: number): string {
  return curveName({ of: 'weight', channel, treatment });
}

/** A treatment's weight as a curve by itself; undefined where it is a number. */
export function weightAsCurve(curve: Curve, treatment: number, name: string): Curve | undefined {
  const weight = curve.treatments[treatment]?.weight;
  if (weight === undefined || typeof weight === 'number') return undefined;
  let made = asCurves.get(weight);
  if (made?.channel !== name) {
    made = { ...weight, channel: name, treatments: [], muted: false, locked: curve.locked };
    asCurves.set(weight, made);
  }
  return made;
}
const asCurves = new WeakMap<KeyedCurve, Curve>();
