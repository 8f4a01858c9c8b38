import {
  isKeyed,
  type Key,
  type KeyedCurve,
  type Curve,
  type Project,
  type Side,
  type Treatment,
} from '../../project';
import { LEAST_KEY_GAP } from '../../file';
import { changeCurves, curvesByChannel } from '../curves';
import { ownerOf } from '../curve-ref';
import { NOTHING_MOVED, type Edited, type Mapping } from '../mapping';

/**
 * What becomes of set slopes where a leg gets longer or shorter: `shape` scales them with the leg, so that the curve keeps
 * its shape; `speed` leaves them as they are, per second, so that speeds at keys stay.
 */
export type SlopesKeep = 'shape' | 'speed';

/** An edit of time: the project after it and where frames went, how much it touches, and the channels that keep it from being done. */
export interface TimeEdit extends Edited {
  readonly channels: number;
  readonly keys: number;
  /** Channels on which keys would pass each other or fall together. Where there are any, the project is as it was. */
  readonly refused: readonly string[];
}

type FrameMap = (frame: number) => number;

/** An edit of time that does nothing: there was nothing to do, or some channels keep it from being done. */
export function untouched(project: Project, refused: readonly string[] = []): TimeEdit {
  return { project, mapping: NOTHING_MOVED, channels: 0, keys: 0, refused };
}

/** The channels a time edit may touch: those asked for that have keys and are not locked. */
export function openChannels(project: Project, channels: readonly string[]): readonly string[] {
  const curves = curvesByChannel(project);
  return channels.filter((channel) => {
    const curve = curves.get(channel);
    return curve && !curve.locked && isKeyed(curve);
  });
}

/**
 * Gives every key of some channels another frame, with their pins and the keys of their treatments' weights. Nothing is
 * done where keys would pass each other or fall together. `time` is where moments of the shot go, where the edit moves those too.
 */
export function retime(
  project: Project,
  channels: readonly string[],
  map: FrameMap,
  slopes: SlopesKeep,
  time?: FrameMap,
): TimeEdit {
  const open = openChannels(project, channels);
  const refused: string[] = [];
  let keys = 0;
  let touched = 0;
  const next = changeCurves(project, open, (curve) => {
    const keyed = retimeKeys(curve, map, slopes);
    if (!keyed) {
      refused.push(curve.channel);
      return curve;
    }
    const moved = keyed.keys.filter((key, i) => key.frame !== curve.keys[i]!.frame).length;
    const treatments = retimeWeights(curve.treatments, map, slopes);
    if (keyed === curve && treatments === curve.treatments) return curve;
    keys += moved;
    touched += 1;
    return { ...keyed, treatments };
  });
  if (refused.length > 0) return untouched(project, refused);
  return { project: next, mapping: mappingOf(open, map, time), channels: touched, keys, refused };
}

/** The mapping of an edit that gives frames of some channels, weights of their treatments included, other places. */
export function mappingOf(
  channels: readonly string[],
  map: (frame: number) => number | null,
  time?: FrameMap,
): Mapping {
  const open = new Set(channels);
  return {
    frame: (frame, curve) => (open.has(ownerOf(curve)) ? map(frame) : frame),
    ...(time ? { time } : {}),
  };
}

function retimeWeights(
  treatments: Curve['treatments'],
  map: FrameMap,
  slopes: SlopesKeep,
): Curve['treatments'] {
  let changed = false;
  const list = treatments.map((treatment): Treatment => {
    if (typeof treatment.weight === 'number') return treatment;
    const weight = retimeKeys(treatment.weight, map, slopes);
    if (!weight || weight === treatment.weight) return treatment;
    changed = true;
    return { ...treatment, weight };
  });
  return changed ? list : treatments;
}

/** The keys at their new frames, or null where their order would not hold. */
export function retimeKeys<T extends KeyedCurve>(curve: T, map: FrameMap, slopes: SlopesKeep): T | null {
  const frames = curve.keys.map((key) => map(key.frame));
  if (frames.every((frame, i) => frame === curve.keys[i]!.frame)) return curve;
  for (let i = 1; i < frames.length; i++)
    if (!(frames[i]! - frames[i - 1]! >= LEAST_KEY_GAP * 2)) return null;
  const factorOf = (i: number) => {
    const [a, b] = [curve.keys[i], curve.keys[i + 1]];
    return a && b ? (frames[i + 1]! - frames[i]!) / (b.frame - a.frame) : null;
  };
  const keys = curve.keys.map((key, i): Key => {
    const moved = frames[i] === key.frame ? key : { ...key, frame: frames[i]! };
    if (slopes === 'speed') return moved;
    const [before, after] = [factorOf(i - 1), factorOf(i)];
    return stretchSides(moved, before ?? after ?? 1, after ?? before ?? 1);
  });
  const pinned = (side: T['before']): T['before'] =>
    side.pin === null
      ? side
      : { ...side, pin: frames[curve.keys.findIndex((key) => key.frame === side.pin)]! };
  return { ...curve, keys, before: pinned(curve.before), after: pinned(curve.after) };
}

/** Divides a key's set slopes by how much longer the legs beside it got. Where the two differ, the key is split. */
function stretchSides(key: Key, before: number, after: number): Key {
  const into = stretchSide(key.in, before);
  const out = stretchSide(key.out, after);
  if (into === key.in && out === key.out) return key;
  const joined = key.joined && Math.abs(before - after) <= 1e-12 * Math.max(before, after);
  return { ...key, in: into, out, joined };
}

function stretchSide(side: Side, factor: number): Side {
  return side.mode !== 'set' || side.slope === 0 || factor === 1
    ? side
    : { ...side, slope: side.slope / factor };
}
