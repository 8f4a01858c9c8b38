import type { Curve, KeyedCurve } from '../project';

/**
 * A treatment's weight that changes over time is a curve like a channel's, and is edited like one, under a name of its own:
 * `<channel>#weight-<place of the treatment>`. `#` stands in no id and no property, so that no channel is called so.
 */
/** The name under which a treatment's weight is drawn and edited as if it were a channel's curve. */
export function weightChannel(channel: string, index: number): string {
  return `${channel}${WEIGHT_MARK}${index}`;
}
const WEIGHT_MARK = '#weight-';

/** The channel and treatment that a weight's name means; null for a channel's own. */
export function weightOf(name: string): { readonly channel: string; readonly index: number } | null {
  const at = name.lastIndexOf(WEIGHT_MARK);
  return at < 0 ? null : { channel: name.slice(0, at), index: Number(name.slice(at + WEIGHT_MARK.length)) };
}

/** A treatment's weight as a curve by itself; undefined where it is a number. */
export function weightAsCurve(curve: Curve, index: number, name: string): Curve | undefined {
  const weight = curve.treatments[index]?.weight;
  if (weight === undefined || typeof weight === 'number') return undefined;
  let made = asCurves.get(weight);
  if (made?.channel !== name) {
    made = { ...weight, channel: name, treatments: [], muted: false, locked: curve.locked };
    asCurves.set(weight, made);
  }
  return made;
}
const asCurves = new WeakMap<KeyedCurve, Curve>();
