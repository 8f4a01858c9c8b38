import type { Curve, Key, Leg, Outside, Project, Side, SideMode } from '../project';
import { isOnOff, secondsPerFrame, splitChannel } from '../project';
import { LEAST_REACH, MOST_REACH, repeats, resolveSide } from '../curve';
import {
  changeCurves,
  changeKeys,
  curveOf,
  framesByChannel,
  keyAtFrame,
  keyIndexAt,
  newKey,
  withKeys,
  type KeyRef,
} from './curves';
import { curveContext } from './curve-context';
import { movedKeys, type Edited, type KeysWent } from './mapping';
import { placeKeys } from './place-keys';

/** A value to be keyed. */
export interface KeyedValue extends KeyRef {
  readonly value: number;
}

/** How a new key begins: how the curve meets it on both sides, and the leg after it where it comes into none. */
export interface KeyStyle {
  readonly mode: SideMode;
  readonly leg: Leg;
}
const PLAIN_STYLE: KeyStyle = { mode: 'smooth', leg: { kind: 'curve' } };

/**
 * Keys values: a key at the frame gets the value, else a new one stands there, its leg like the one it came into; with a leg asked for that is no
 * Curve, that one.
 */
export function keyValues(
  project: Project,
  values: readonly KeyedValue[],
  style: KeyStyle = PLAIN_STYLE,
): Project {
  const byChannel = new Map<string, KeyedValue[]>();
  for (const entry of values) byChannel.set(entry.channel, [...(byChannel.get(entry.channel) ?? []), entry]);
  return changeCurves(project, [...byChannel.keys()], (curve) =>
    (byChannel.get(curve.channel) ?? []).reduce<Curve>(
      (at, { frame, value }) => keyValue(at, frame, value, style),
      curve,
    ),
  );
}

function keyValue(curve: Curve, frame: number, value: number, { mode, leg: asked }: KeyStyle): Curve {
  const there = keyAtFrame(curve, frame);
  if (there) {
    return there.value === value
      ? curve
      : { ...curve, keys: curve.keys.map((key) => (key === there ? { ...key, value } : key)) };
  }
  const entered = curve.keys[keyIndexAt(curve, frame)]?.leg;
  const between: Leg = isOnOff(splitChannel(curve.channel).property) ? { kind: 'hold' } : asked;
  const leg = between.kind === 'curve' ? (entered ?? between) : between;
  const key = newKey(frame, value, leg);
  const sided =
    mode === 'smooth'
      ? key
      : { ...key, in: { ...key.in, mode }, out: { ...key.out, mode }, joined: mode !== 'linear' };
  return withKeys(curve, [...curve.keys, sided]);
}

export function deleteKeys(project: Project, refs: readonly KeyRef[]): Project {
  const frames = framesByChannel(refs);
  return changeCurves(project, [...frames.keys()], (curve) => {
    const gone = frames.get(curve.channel)!;
    const kept = curve.keys.filter((key) => !gone.has(key.frame));
    return kept.length === curve.keys.length ? curve : withKeys(curve, kept);
  });
}

export interface KeyMove {
  readonly frames: number;
  readonly value: number;
  /** Leave the keys where they were and move copies. */
  readonly copy?: boolean;
}

/** Moves keys in time and value. A moved key takes the place of one it lands on; pins follow their key. */
export function moveKeys(project: Project, refs: readonly KeyRef[], move: KeyMove): Edited {
  return mapKeyPlaces(
    project,
    refs,
    (key) => ({ frame: key.frame + move.frames, value: key.value + move.value }),
    move.copy,
  );
}

/** Gives each of the keys another frame and value. Where copies move, what pointed at the keys points at the copies. */
export function mapKeyPlaces(
  project: Project,
  refs: readonly KeyRef[],
  place: (key: Key, channel: string) => { readonly frame: number; readonly value: number },
  copy = false,
): Edited {
  const frames = framesByChannel(refs);
  const went = new Map<string, KeysWent>();
  const next = changeCurves(project, [...frames.keys()], (curve) => {
    const named = frames.get(curve.channel)!;
    const moved = new Map<Key, Key>();
    for (const key of curve.keys) {
      if (!named.has(key.frame)) continue;
      const { frame, value } = place(key, curve.channel);
      moved.set(key, frame === key.frame && value === key.value ? key : { ...key, frame, value });
    }
    if ([...moved].every(([key, now]) => key === now)) return curve;
    const placed = placeKeys(curve, moved, copy);
    went.set(curve.channel, placed.went);
    return placed.curve;
  });
  return { project: next, mapping: movedKeys(went) };
}

type SideName = 'in' | 'out';

/**
 * Sets how keys are met on a side. On a joined key a mode that both sides can share goes to both; linear, whose slope is
 * each side's own, splits it.
 */
export function setSideMode(
  project: Project,
  refs: readonly KeyRef[],
  side: SideName,
  mode: SideMode,
): Project {
  const context = curveContext(project);
  return changeKeys(project, refs, (key, curve, index) => {
    const changed = (name: SideName): Side => {
      const slope =
        mode === 'set' && key[name].mode !== 'set'
          ? resolveSide(curve, index, name, context).slope
          : key[name].slope;
      return { ...key[name], mode, slope };
    };
    if (mode === 'linear') return { ...key, [side]: changed(side), joined: false };
    if (!key.joined) return { ...key, [side]: changed(side) };
    const own = changed(side);
    const other: SideName = side === 'in' ? 'out' : 'in';
    return { ...key, [side]: own, [other]: { ...key[other], mode, slope: own.slope } };
  });
}

/** Sets a side's slope, in value per second; a joined key's other side gets it too. */
export function setSpeed(
  project: Project,
  refs: readonly KeyRef[],
  side: SideName,
  perSecond: number,
): Project {
  const slope = perSecond * secondsPerFrame(project.rate);
  return changeKeys(project, refs, (key) => withSlope(key, side, slope));
}

function withSlope(key: Key, side: SideName, slope: number): Key {
  const set = (name: SideName): Side => ({ ...key[name], mode: 'set', slope });
  return key.joined ? { ...key, in: set('in'), out: set('out') } : { ...key, [side]: set(side) };
}

export function setReach(project: Project, refs: readonly KeyRef[], side: SideName, reach: number): Project {
  return changeKeys(project, refs, (key) => ({
    ...key,
    [side]: { ...key[side], reach: Math.min(MOST_REACH, Math.max(LEAST_REACH, reach)) },
  }));
}

/** A handle: one side of a key. */
export interface HandleRef extends KeyRef {
  readonly side: SideName;
}

/** Puts the end of a handle at a place: its slope and reach follow. The handle can't go past its leg. */
export function placeHandle(project: Project, ref: HandleRef, frame: number, value: number): Project {
  return changeKeys(project, [ref], (key, curve, index) => {
    const neighbour = curve.keys[ref.side === 'out' ? index + 1 : index - 1];
    if (!neighbour) return key;
    const dt = Math.abs(neighbour.frame - key.frame);
    const along = Math.min(MOST_REACH * dt, Math.max(LEAST_REACH * dt, Math.abs(frame - key.frame)));
    const forward = ref.side === 'out' ? 1 : -1;
    const inside = (frame - key.frame) * forward > 0 ? along : LEAST_REACH * dt;
    const slope = ((value - key.value) * forward) / inside;
    const slid = withSlope(key, ref.side, slope);
    return { ...slid, [ref.side]: { ...slid[ref.side], reach: inside / dt } };
  });
}

/** Where a handle's end lies: frame and value. */
export function handlePlace(
  project: Project,
  curve: Curve,
  index: number,
  side: SideName,
): { readonly frame: number; readonly value: number } | null {
  const key = curve.keys[index];
  const neighbour = curve.keys[side === 'out' ? index + 1 : index - 1];
  if (!key || !neighbour) return null;
  const leg = side === 'out' ? key.leg : neighbour.leg;
  if (leg.kind !== 'curve') return null;
  const { slope, reach } = resolveSide(curve, index, side, curveContext(project));
  const frames = reach * (neighbour.frame - key.frame);
  return { frame: key.frame + frames, value: key.value + slope * frames };
}

/** Joins or splits the two sides. Joining takes the leaving side's slope for both. */
export function setJoined(project: Project, refs: readonly KeyRef[], joined: boolean): Project {
  const context = curveContext(project);
  return changeKeys(project, refs, (key, curve, index) => {
    if (key.joined === joined) return key;
    if (!joined) return { ...key, joined };
    const shared = key.out.mode === 'linear' ? ('set' as const) : key.out.mode;
    const slope = shared === 'set' ? resolveSide(curve, index, 'out', context).slope : key.out.slope;
    return {
      ...key,
      joined,
      in: { ...key.in, mode: shared, slope },
      out: { ...key.out, mode: shared, slope },
    };
  });
}

export function setLeg(project: Project, refs: readonly KeyRef[], leg: Leg): Project {
  return changeKeys(project, refs, (key) => ({ ...key, leg }));
}

/** What a curve does before its first or after its last key. A pin that is no inner key is dropped. */
export function setOutside(
  project: Project,
  channels: readonly string[],
  side: 'before' | 'after',
  outside: Partial<Outside>,
): Project {
  return changeCurves(project, channels, (curve) => {
    const next: Outside = { ...curve[side], ...outside };
    const inner = curve.keys.slice(1, -1).some((key) => key.frame === next.pin);
    return { ...curve, [side]: { ...next, pin: inner && repeats(next.mode) ? next.pin : null } };
  });
}

/** Mutes or locks channels that have a curve. */
export function setCurveFlag(
  project: Project,
  channels: readonly string[],
  flag: 'muted' | 'locked',
  on: boolean,
): Project {
  const known = channels.filter((channel) => curveOf(project, channel));
  return changeCurves(project, known, (curve) => (curve[flag] === on ? curve : { ...curve, [flag]: on }), {
    locked: 'change',
  });
}
