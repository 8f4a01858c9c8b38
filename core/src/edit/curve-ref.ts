import type { Curve, KeyedCurve, Project, Weight } from '../project';
import { replacedAt } from '../project';

/**
 * The address of a curve: a channel's own in the active clip, the weight over time of one of its treatments, a driver's map over its
 * input, a placement's weight or its time. All are edited alike; the rest of the house knows addresses by name.
 */
export type CurveRef =
  | { readonly of: 'channel'; readonly channel: string }
  | { readonly of: 'weight'; readonly channel: string; readonly treatment: number }
  | { readonly of: 'map'; readonly driver: string }
  | { readonly of: 'placed-weight' | 'placed-time'; readonly placement: string };

/** `#` stands in no id and no property, so that no channel is called so. */
const WEIGHT_MARK = '#weight-';
const MARK = '#';
const ELSEWHERE = /^#(map|placed-weight|placed-time)\/(.+)$/;

/** An address as one word, by which selections, rows and caches know the curve: a channel's is the channel itself. */
export function curveName(ref: CurveRef): string {
  switch (ref.of) {
    case 'channel':
      return ref.channel;
    case 'weight':
      return `${ref.channel}${WEIGHT_MARK}${ref.treatment}`;
    case 'map':
      return `#map/${ref.driver}`;
    case 'placed-weight':
    case 'placed-time':
      return `#${ref.of}/${ref.placement}`;
  }
}

/** The address that a name means. */
export function curveRef(name: string): CurveRef {
  if (isChannel(name)) return { of: 'channel', channel: name };
  const [, of, id = ''] = (name.startsWith(MARK) && ELSEWHERE.exec(name)) || [];
  if (of === 'map') return { of, driver: id };
  if (of === 'placed-weight' || of === 'placed-time') return { of, placement: id };
  const at = name.lastIndexOf(WEIGHT_MARK);
  if (at < 0) return { of: 'channel', channel: name };
  return { of: 'weight', channel: name.slice(0, at), treatment: Number(name.slice(at + WEIGHT_MARK.length)) };
}

/** Whether a name is that of a channel's own curve. */
export function isChannel(name: string): boolean {
  return !name.includes(MARK);
}

/** The channel on whose curve a named curve lies: itself, or the one whose treatment it weighs. */
export function ownerOf(name: string): string {
  return name.includes(WEIGHT_MARK) ? (curveRef(name) as { readonly channel: string }).channel : name;
}

/** The name of the weight of a channel's treatment. */
export function weightChannel(channel: string, treatment: number): string {
  return curveName({ of: 'weight', channel, treatment });
}

/** The curve of a driver's map or of a placement as one by itself; undefined where there is none, or a number in its place. */
export function curveElsewhere(project: Project, name: string): Curve | undefined {
  const ref = curveRef(name);
  if (ref.of === 'map') {
    const driver = project.drivers.find(({ id }) => id === ref.driver);
    return driver?.kind === 'map' ? asCurve(driver.curve, name) : undefined;
  }
  if (ref.of !== 'placed-weight' && ref.of !== 'placed-time') return undefined;
  const placement = project.arrangement.find(({ id }) => id === ref.placement);
  return asCurve(ref.of === 'placed-weight' ? placement?.weight : placement?.time, name);
}

/**
 * Puts a changed curve of a driver's map or a placement in its place. Without keys a map stays as it was, a weight is a number again,
 * 1, and a time is none: the placement's speed counts again.
 */
export function withCurveElsewhere(project: Project, name: string, changed: KeyedCurve): Project {
  const ref = curveRef(name);
  const { keys, before, after } = changed;
  const curve: KeyedCurve | null = keys.length > 0 ? { keys, before, after } : null;
  if (ref.of === 'map') {
    const at = project.drivers.findIndex(({ id }) => id === ref.driver);
    const driver = project.drivers[at];
    if (driver?.kind !== 'map' || !curve) return project;
    return { ...project, drivers: replacedAt(project.drivers, at, { ...driver, curve }) };
  }
  if (ref.of !== 'placed-weight' && ref.of !== 'placed-time') return project;
  const at = project.arrangement.findIndex(({ id }) => id === ref.placement);
  const placement = project.arrangement[at];
  if (!placement) return project;
  const next =
    ref.of === 'placed-weight' ? { ...placement, weight: curve ?? 1 } : { ...placement, time: curve };
  return { ...project, arrangement: replacedAt(project.arrangement, at, next) };
}

/** A treatment's weight as a curve by itself; undefined where it is a number. */
export function weightAsCurve(curve: Curve, treatment: number, name: string): Curve | undefined {
  return asCurve(curve.treatments[treatment]?.weight, name, curve.locked);
}

function asCurve(keyed: Weight | null | undefined, name: string, locked = false): Curve | undefined {
  if (keyed === undefined || keyed === null || typeof keyed === 'number') return undefined;
  let made = asCurves.get(keyed);
  if (made?.channel !== name || made.locked !== locked) {
    made = { ...keyed, channel: name, treatments: [], muted: false, locked };
    asCurves.set(keyed, made);
  }
  return made;
}
const asCurves = new WeakMap<KeyedCurve, Curve>();
