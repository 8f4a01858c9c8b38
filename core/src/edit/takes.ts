import type { Curve, Project, Take } from '../project';
import { changeCurves } from './curves';

/** What of a curve a take keeps. */
export function takeOf({ keys, before, after, treatments }: Curve): Take {
  return { keys, before, after, treatments };
}

/** Keeps the curves of some channels as their second take, in place of one kept before; the curves themselves go on as they are. */
export function keepTake(project: Project, channels: readonly string[]): Project {
  return changeCurves(project, channels, (curve) =>
    curve.keys.length === 0 ? curve : { ...curve, otherTake: takeOf(curve) },
  );
}

/** Lets the second take of some channels play, and keeps what played as their second one. */
export function switchTake(project: Project, channels: readonly string[]): Project {
  return changeCurves(project, channels, (curve) =>
    curve.otherTake ? { ...curve, ...curve.otherTake, otherTake: takeOf(curve) } : curve,
  );
}

/** Lets go of the second takes of some channels. */
export function dropTake(project: Project, channels: readonly string[]): Project {
  return changeCurves(project, channels, (curve) => {
    if (!curve.otherTake) return curve;
    const { otherTake: _dropped, ...rest } = curve;
    return rest;
  });
}

/** The second take of a channel as a curve by itself, to be drawn beside the one that plays. */
export function otherTakeAsCurve(curve: Curve): Curve | undefined {
  if (!curve.otherTake) return undefined;
  let made = asCurves.get(curve.otherTake);
  if (!made) {
    made = { ...curve.otherTake, channel: curve.channel, muted: false, locked: true };
    asCurves.set(curve.otherTake, made);
  }
  return made;
}
const asCurves = new WeakMap<Take, Curve>();
