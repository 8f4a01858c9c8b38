import type { Clip, Curve, Key, KeyedCurve, Leg, Part, Project } from '../project';
import {
  activeClip,
  changedList,
  NamePlaces,
  channelName,
  DEFAULT_OUTSIDE,
  DEFAULT_SIDE,
  firstWhere,
  partProperties,
  splitChannel,
  TRANSFORM_PLACES,
} from '../project';
import { LEAST_KEY_GAP } from '../file';
import { curveElsewhere, curveRef, isChannel, weightAsCurve, withCurveElsewhere } from './curve-ref';

/** A key by its channel in the active clip and its frame, which no two keys of a curve share. */
export interface KeyRef {
  readonly channel: string;
  readonly frame: number;
}

/** The curve of a channel in the active clip, or any other by the name of its address. */
export function curveOf(project: Project, channel: string): Curve | undefined {
  return curvesByChannel(project).get(channel);
}

/** The curves of some channels, of those that have one. */
export function curvesOf(project: Project, channels: readonly string[]): readonly Curve[] {
  const index = curvesByChannel(project);
  const curves: Curve[] = [];
  for (const channel of channels) {
    const curve = index.get(channel);
    if (curve) curves.push(curve);
  }
  return curves;
}

/** Curves by the name of their channel. */
export interface CurveIndex {
  get(channel: string): Curve | undefined;
  has(channel: string): boolean;
}

/**
 * All curves of the active clip by channel: for who asks for many of them. The places of the channels are found once and go along
 * through edits that add and remove none.
 */
export function curvesByChannel(project: Project): CurveIndex {
  const curves = activeClip(project)?.curves ?? NO_CURVES;
  let index = indexByList.get(curves);
  if (!index) indexByList.set(curves, (index = indexOf(curves)));
  const ofClip = index;
  const get = (name: string) =>
    ofClip.get(name) ?? (isChannel(name) ? undefined : curveElsewhere(project, name));
  return { get, has: (name) => get(name) !== undefined };
}

function indexOf(curves: readonly Curve[]): CurveIndex {
  const places = placesOf(curves);
  const get = (channel: string) => {
    const place = places.get(channel);
    if (place !== undefined) return curves[place];
    if (isChannel(channel)) return undefined;
    const ref = curveRef(channel);
    if (ref.of !== 'weight') return undefined;
    const owner = curves[places.get(ref.channel) ?? -1];
    return owner && weightAsCurve(owner, ref.treatment, channel);
  };
  return { get, has: (channel) => get(channel) !== undefined };
}

function placesOf(curves: readonly Curve[]): NamePlaces<Curve> {
  let places = placesByList.get(curves);
  if (!places) placesByList.set(curves, (places = NamePlaces.of(curves, ({ channel }) => channel)));
  return places;
}

/** Whether all curves that have an address are the very same in two states of a project. */
export function haveSameCurves(a: Project, b: Project): boolean {
  return (
    activeClip(a)?.curves === activeClip(b)?.curves &&
    a.drivers === b.drivers &&
    a.arrangement === b.arrangement
  );
}

/** The curves of a part's channels in the active clip, in the order of its channels. */
export function curvesOfPart(project: Project, part: Part): readonly Curve[] {
  const curves = activeClip(project)?.curves ?? NO_CURVES;
  const places = placesByPart(curves).get(part.id);
  if (!places) return NO_CURVES;
  const own = places.map((place) => curves[place]!);
  if (isInOrder(own, part.id)) return own;
  const index = curvesByChannel(project);
  return partProperties(part).flatMap(({ property }) => index.get(channelName(part.id, property)) ?? []);
}

/** Whether curves of a part are of its transform only, each by itself and in order, as every part has these first. */
function isInOrder(curves: readonly Curve[], part: string): boolean {
  let last = -1;
  for (const { channel } of curves) {
    const place = TRANSFORM_PLACES.get(channel.slice(part.length + 1)) ?? -1;
    if (place <= last) return false;
    last = place;
  }
  return true;
}

/** Where in a list the curves of each part stand. */
function placesByPart(curves: readonly Curve[]): ReadonlyMap<string, readonly number[]> {
  const known = partsByList.get(curves);
  if (known) return known;
  const places = new Map<string, number[]>();
  let part = '';
  let own: number[] = [];
  for (const [i, { channel }] of curves.entries()) {
    // Most stand behind another of the same part.
    if (channel.charAt(part.length) !== '/' || !channel.startsWith(part)) {
      ({ part } = splitChannel(channel));
      own = places.get(part) ?? [];
      places.set(part, own);
    }
    own.push(i);
  }
  partsByList.set(curves, places);
  return places;
}

const NO_CURVES: readonly Curve[] = [];
const indexByList = new WeakMap<readonly Curve[], CurveIndex>();
const placesByList = new WeakMap<readonly Curve[], NamePlaces<Curve>>();
const partsByList = new WeakMap<readonly Curve[], ReadonlyMap<string, readonly number[]>>();

export function emptyCurve(channel: string): Curve {
  return {
    channel,
    keys: [],
    before: DEFAULT_OUTSIDE,
    after: DEFAULT_OUTSIDE,
    treatments: [],
    muted: false,
    locked: false,
  };
}

export function newKey(frame: number, value: number, leg: Leg = { kind: 'curve' }): Key {
  return { frame, value, in: DEFAULT_SIDE, out: DEFAULT_SIDE, joined: true, leg };
}

/**
 * Changes the curves of some channels in the active clip; `change` gets an empty curve where a channel has none. A curve
 * left without keys and treatments goes. All other curves stay the very same objects. Locked curves are not touched.
 */
export function changeCurves(
  project: Project,
  channels: readonly string[],
  change: (curve: Curve) => Curve,
  options: { readonly locked?: 'skip' | 'change' } = {},
): Project {
  const clip = activeClip(project);
  const elsewhere = channels.filter((channel) => !isChannel(channel));
  if (elsewhere.length > 0) {
    const changed = elsewhere.reduce((at, name) => changeElsewhere(at, name, change), project);
    return changeCurves(changed, channels.filter(isChannel), change, options);
  }
  if (!clip || channels.length === 0) return project;
  const list = clip.curves;
  const places = placesOf(list);
  const wanted = new Set(channels);
  const changes = new Map<number, Curve>();
  let emptied = false;
  for (const channel of channels) {
    const i = places.get(channel);
    if (i === undefined || !wanted.delete(channel)) continue;
    const curve = list[i]!;
    const changed = curve.locked && options.locked !== 'change' ? curve : change(curve);
    if (changed === curve) continue;
    emptied ||= isEmpty(changed);
    changes.set(i, changed);
  }
  const added = [...wanted].map((channel) => change(emptyCurve(channel))).filter((made) => !isEmpty(made));
  if (changes.size === 0 && added.length === 0) return project;
  const curves = changedList(list, changes, added);
  if (emptied) return withClip(project, { ...clip, curves: curves.filter((curve) => !isEmpty(curve)) });
  placesByList.set(curves, places.grownTo(curves));
  const parts = partsByList.get(list);
  if (parts && added.length === 0) partsByList.set(curves, parts);
  return withClip(project, { ...clip, curves });
}

/** Changes a curve that is no channel's. A treatment's weight left without keys is a number again, 1. */
function changeElsewhere(project: Project, name: string, change: (curve: Curve) => Curve): Project {
  const ref = curveRef(name);
  if (ref.of !== 'weight') {
    const curve = curveElsewhere(project, name);
    const changed = curve && change(curve);
    return changed && changed !== curve ? withCurveElsewhere(project, name, changed) : project;
  }
  return changeCurves(project, [ref.channel], (owner) => {
    const weight = weightAsCurve(owner, ref.treatment, name);
    const changed = weight ? change(weight) : weight;
    if (!changed || changed === weight) return owner;
    const { keys, before, after } = changed;
    const next = keys.length === 0 ? 1 : { keys, before, after };
    return {
      ...owner,
      treatments: owner.treatments.map((each, i) => (i === ref.treatment ? { ...each, weight: next } : each)),
    };
  });
}

function isEmpty(curve: Curve): boolean {
  return curve.keys.length === 0 && curve.treatments.length === 0;
}

function withClip(project: Project, clip: Clip): Project {
  return { ...project, clips: project.clips.map((other) => (other.id === clip.id ? clip : other)) };
}

/** The frames named for one channel. */
export function framesByChannel(refs: readonly KeyRef[]): Map<string, Set<number>> {
  const map = new Map<string, Set<number>>();
  for (const { channel, frame } of refs) map.set(channel, (map.get(channel) ?? new Set()).add(frame));
  return map;
}

/** Changes some keys, each by itself; frames stay. */
export function changeKeys(
  project: Project,
  refs: readonly KeyRef[],
  change: (key: Key, curve: Curve, index: number) => Key,
): Project {
  const frames = framesByChannel(refs);
  return changeCurves(project, [...frames.keys()], (curve) => {
    const named = frames.get(curve.channel)!;
    let changed = false;
    const keys = curve.keys.map((key, i) => {
      if (!named.has(key.frame)) return key;
      const next = change(key, curve, i);
      changed ||= next !== key;
      return next;
    });
    return changed ? { ...curve, keys } : curve;
  });
}

/** Keys sorted by frame; where two fall together the later of the list stays. Pins follow their key or go. */
export function withKeys<T extends KeyedCurve>(
  curve: T,
  keys: readonly Key[],
  movedFrom: ReadonlyMap<number, number> = new Map(),
): T {
  const sorted = keys
    .map((key, order) => ({ key, order }))
    .sort((a, b) => a.key.frame - b.key.frame || a.order - b.order);
  const kept: { key: Key; order: number }[] = [];
  for (const entry of sorted) {
    const last = kept.at(-1);
    if (last && entry.key.frame - last.key.frame < LEAST_KEY_GAP * 2) {
      if (entry.order > last.order) kept[kept.length - 1] = entry;
    } else {
      kept.push(entry);
    }
  }
  const list = kept.map(({ key }) => key);
  const inner = new Set(list.slice(1, -1).map((key) => key.frame));
  const pinned = (side: T['before']): T['before'] => {
    if (side.pin === null) return side;
    const pin = movedFrom.get(side.pin) ?? side.pin;
    return inner.has(pin) ? (pin === side.pin ? side : { ...side, pin }) : { ...side, pin: null };
  };
  return { ...curve, keys: list, before: pinned(curve.before), after: pinned(curve.after) };
}

/** The index of the key at a frame, or of the last one before it, −1 before the first. */
export function keyIndexAt(curve: KeyedCurve, frame: number): number {
  const { keys } = curve;
  return firstWhere(0, keys.length, (i) => keys[i]!.frame > frame + LEAST_KEY_GAP) - 1;
}

export function keyAtFrame(curve: KeyedCurve, frame: number): Key | undefined {
  const key = curve.keys[keyIndexAt(curve, frame)];
  return key && Math.abs(key.frame - frame) <= LEAST_KEY_GAP ? key : undefined;
}
