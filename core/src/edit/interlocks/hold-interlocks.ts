import { activeClip, type Awaited, type Curve, type Interlock, type Project } from '../../project';
import { awaitedFrame } from '../../evaluate';
import { curveOf, keyAtFrame } from '../curves';
import { mapKeyPlaces } from '../keys';
import { curveAfter, frameAfter, type Edited, type Mapping } from '../mapping';
import { shiftFrame } from '../time/time-map';

/** Frames nearer than this are one. */
const SAME_FRAME = 1e-6;
/** A key that is moved stays so many frames from the one before it, or as near as it was. */
const ROOM = 1;

/**
 * An edit with the interlocks of the clip kept: they go along with the keys they tie, those whose keys went go too, and where what
 * a key waits for, the key or the interlock itself was changed, the key moves as far as it must. It takes the keys after it along,
 * up to the next of its channel that waits, and pushes that one where it would be overtaken. Keys of a locked curve stay:
 * `interlockStanding` tells what is missing then.
 */
export function holdInterlocks(before: Project, edited: Edited): Edited {
  if (edited.project === before || edited.project.interlocks.length === 0) return edited;
  let at: Edited = { ...edited, project: followed(before, edited) };
  if (at.project === before) return edited;
  const was = new Map(before.interlocks.map((lock) => [lock.id, lock]));
  for (let round = 0; round <= at.project.interlocks.length; round++) {
    const start = at;
    for (const { id } of start.project.interlocks) {
      const lock = at.project.interlocks.find((each) => each.id === id);
      if (lock && isTouched(before, was.get(id), at.project, lock)) at = held(before, at, lock);
    }
    if (at === start) break;
  }
  return at;
}

/** How an interlock stands: when what it waits for has come, when the key is due, and by how many frames it comes later than that. */
export interface InterlockStanding {
  /** Null where what is waited for never comes. */
  readonly awaited: number | null;
  readonly due: number | null;
  /** Frames to spare; negative: so many are missing. An exact one has none either way. */
  readonly spare: number | null;
  readonly holds: boolean;
}

export function interlockStanding(project: Project, lock: Interlock): InterlockStanding {
  const awaited = awaitedFrame(project, lock);
  if (awaited === null) return { awaited, due: null, spare: null, holds: false };
  const due = shiftFrame(awaited, lock.gap);
  const spare = shiftFrame(lock.frame, -due);
  return { awaited, due, spare, holds: lock.exact ? Math.abs(spare) <= SAME_FRAME : spare >= -SAME_FRAME };
}

function isTouched(before: Project, was: Interlock | undefined, now: Project, lock: Interlock): boolean {
  if (lock.muted || lock.clip !== now.activeClip) return false;
  if (was !== lock) return true;
  const [first, last] = [awaitedFrame(before, was), awaitedFrame(now, lock)];
  return first === null || last === null ? first !== last : Math.abs(first - last) > SAME_FRAME;
}

function held(before: Project, at: Edited, lock: Interlock): Edited {
  const back = movedBack(before, at, lock);
  const now = back.project.interlocks.find(({ id }) => id === lock.id) ?? lock;
  const by = missing(back.project, now);
  return by === 0 ? back : moveWaiting(back, now.channel, now.frame, by);
}

/** By how many frames a key that waits must move. One on a whole frame stays on whole frames, unless it is to come exactly then. */
function missing(project: Project, lock: Interlock): number {
  const { due, holds } = interlockStanding(project, lock);
  if (holds || due === null) return 0;
  const whole = !lock.exact && Number.isInteger(lock.frame);
  return shiftFrame(whole ? Math.ceil(due - SAME_FRAME) : due, -lock.frame);
}

/** Where the edit itself moved the waiting key against its interlock, that is taken back first: of it and the keys moved with it. */
function movedBack(before: Project, at: Edited, lock: Interlock): Edited {
  const [old, now] = [curveOf(before, lock.channel), curveOf(at.project, lock.channel)];
  if (!old || !now) return at;
  const by = withinRoom(now, lock.frame, missing(at.project, lock));
  if (by === 0) return at;
  const went = old.keys.map(({ frame }) => ({ frame, now: frameAfter(at.mapping, frame, lock.channel) }));
  const first = went.findIndex((key) => key.now !== null && Math.abs(key.now - lock.frame) <= SAME_FRAME);
  if (first < 0) return at;
  const back = new Map<number, number>();
  for (const { frame, now: there } of went.slice(first)) {
    const moved = there === null ? 0 : shiftFrame(frame, -there);
    if (there === null || moved * by <= 0) break;
    back.set(there, Math.sign(by) * Math.min(Math.abs(by), Math.abs(moved)));
  }
  return moved(at, lock.channel, back);
}

/** Some keys of a channel moved by so many frames each. */
function moved(at: Edited, channel: string, by: ReadonlyMap<number, number>): Edited {
  if (by.size === 0) return at;
  const refs = [...by.keys()].map((frame) => ({ channel, frame }));
  return composed(
    at,
    mapKeyPlaces(at.project, refs, (key) => ({
      frame: shiftFrame(key.frame, by.get(key.frame) ?? 0),
      value: key.value,
    })),
  );
}

/** Moves a key that waits with those after it, up to the next one that waits. */
function moveWaiting(at: Edited, channel: string, frame: number, wish: number): Edited {
  const curve = curveOf(at.project, channel);
  if (!curve || curve.locked) return at;
  const { keys } = curve;
  const from = keys.findIndex((key) => Math.abs(key.frame - frame) <= SAME_FRAME);
  if (from < 0) return at;
  const waiting = at.project.interlocks.filter((each) => each.channel === channel && !each.muted);
  const next = keys.findIndex(
    (key, i) => i > from && waiting.some((each) => Math.abs(each.frame - key.frame) <= SAME_FRAME),
  );
  const end = next < 0 ? keys.length : next;
  const by = withinRoom(curve, frame, wish);
  if (Math.abs(by) <= SAME_FRAME) return at;
  const cleared = end < keys.length && by > 0 ? pushed(at, curve, end, by) : at;
  return moved(cleared, channel, new Map(keys.slice(from, end).map((key) => [key.frame, by])));
}

/** A way for a key to go, back only so far that the one before it keeps its place. */
function withinRoom(curve: Curve, frame: number, wish: number): number {
  const place = curve.keys.findIndex((key) => Math.abs(key.frame - frame) <= SAME_FRAME);
  return place > 0 && wish < 0 ? Math.max(wish, roomBetween(curve, place - 1, place)) : wish;
}

/** How far a key may go back towards the one before it, as a number that is not positive. */
function roomBetween({ keys }: Curve, earlier: number, later: number): number {
  const gap = keys[later]!.frame - keys[earlier]!.frame;
  return Math.min(ROOM, gap) - gap;
}

/** Pushes the key at `end`, which waits, where the keys before it would come too near by going `by` frames later. */
function pushed(at: Edited, curve: Curve, end: number, by: number): Edited {
  const over = by + roomBetween(curve, end - 1, end);
  return over > 0 ? moveWaiting(at, curve.channel, curve.keys[end]!.frame, over) : at;
}

/** An edit after an edit: the interlocks follow the second one's keys, too. */
function composed(first: Edited, second: Edited): Edited {
  const { mapping } = first;
  return {
    ...first,
    project: followed(first.project, second),
    mapping: { ...mapping, frame: (frame, curve) => frameThrough(frame, curve, mapping, second.mapping) },
  };
}

function frameThrough(frame: number, curve: string, first: Mapping, second: Mapping): number | null {
  const there = frameAfter(first, frame, curve);
  const name = curveAfter(first, curve);
  return there === null || name === null ? null : frameAfter(second, there, name);
}

/** A project after an edit whose interlocks name the keys where they stand now; without those whose keys went. */
function followed(before: Project, { project, mapping }: Edited): Project {
  const moves = project.interlocks === before.interlocks && project.activeClip === before.activeClip;
  let changed = false;
  const interlocks = project.interlocks.flatMap((lock) => {
    const now = moves && lock.clip === project.activeClip ? lockAfter(lock, mapping) : lock;
    const kept = now && isThere(project, now) ? [now] : [];
    changed ||= kept[0] !== lock;
    return kept;
  });
  return changed ? { ...project, interlocks } : project;
}

function lockAfter(lock: Interlock, mapping: Mapping): Interlock | null {
  const own = placeAfter(lock, mapping);
  const after = awaitedAfter(lock.after, mapping);
  if (!own || !after) return null;
  return own.channel === lock.channel && own.frame === lock.frame && after === lock.after
    ? lock
    : { ...lock, ...own, after };
}

function awaitedAfter(after: Awaited, mapping: Mapping): Awaited | null {
  if (after.kind === 'key') {
    const place = placeAfter(after, mapping);
    const stays = place?.channel === after.channel && place.frame === after.frame;
    return place && (stays ? after : { ...after, ...place });
  }
  const channel = curveAfter(mapping, after.channel);
  if (channel === null) return null;
  return channel === after.channel ? after : { ...after, channel };
}

function placeAfter(
  { channel, frame }: { readonly channel: string; readonly frame: number },
  mapping: Mapping,
): { readonly channel: string; readonly frame: number } | null {
  const name = curveAfter(mapping, channel);
  const now = frameAfter(mapping, frame, channel);
  return name === null || now === null ? null : { channel: name, frame: now };
}

function isThere(project: Project, { clip, channel, frame, after }: Interlock): boolean {
  const curve =
    clip === activeClip(project)?.id
      ? (name: string) => curveOf(project, name)
      : (name: string) =>
          project.clips.find(({ id }) => id === clip)?.curves.find((each) => each.channel === name);
  const has = (name: string, at: number) => {
    const found = curve(name);
    return found !== undefined && keyAtFrame(found, at) !== undefined;
  };
  return has(channel, frame) && (after.kind === 'passes' || has(after.channel, after.frame));
}
