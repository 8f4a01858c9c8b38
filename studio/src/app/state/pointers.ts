import {
  changedPlaces,
  followCurves,
  followKeys,
  frameAfter,
  timeAfter,
  type Edited,
  type HandleRef,
  type KeyRef,
  type Mapping,
  type Project,
  type Span,
  type TimeKnot,
} from '@kaizen/core';
import type { LooseEdit } from './loose-edit';

/**
 * What in the Bench points into the project. It goes through the mapping of each edit here and nowhere else, and undo
 * brings it back.
 */
export interface Pointers {
  readonly parts: readonly string[];
  readonly channels: readonly string[];
  readonly keys: readonly KeyRef[];
  readonly handles: readonly HandleRef[];
  readonly only: string | null;
  /** The chosen treatment, by the name of its weight. */
  readonly lane: string | null;
  /** Channels that stay drawn whatever is chosen. */
  readonly pinned: readonly string[];
  /** Fixed points of time, with where each goes; none: no Stakes are set. */
  readonly stakes: readonly TimeKnot[];
  readonly held: PosesHeld;
}

/** The work seen as stills on its keys, but over a span that is released. */
export interface PosesHeld {
  readonly on: boolean;
  readonly released: Span | null;
}

/** What pointed into the project before an edit, and where it points after. */
export interface PointersMoved {
  readonly before: Pointers;
  readonly after: Pointers;
}

export function pointersOf({
  parts,
  channels,
  keys,
  handles,
  only,
  lane,
  pinned,
  stakes,
  held,
}: Pointers): Pointers {
  return { parts, channels, keys, handles, only, lane, pinned, stakes, held };
}

/** Where all that pointed into a project points after an edit; what points at something that went is left out. */
export function followPointers(pointers: Pointers, before: Project, edited: Edited): Pointers {
  const { mapping, project } = edited;
  const stays = staying(before, project);
  const names = (list: readonly string[]) =>
    filtered(followCurves(list, mapping), (name) => stays(partOf(name)));
  const one = (name: string | null) => (name === null ? null : (names([name])[0] ?? null));
  return {
    parts: filtered(pointers.parts, stays),
    channels: names(pointers.channels),
    keys: followKeys<KeyRef>(pointers.keys, before, edited),
    handles: followKeys<HandleRef>(pointers.handles, before, edited),
    only: one(pointers.only),
    lane: one(pointers.lane),
    pinned: names(pointers.pinned),
    stakes: mapping.time ? pointers.stakes.map((stake) => stakeAfter(stake, mapping)) : pointers.stakes,
    held:
      mapping.time && pointers.held.released
        ? { ...pointers.held, released: spanAfter(pointers.held.released, mapping) }
        : pointers.held,
  };
}

/** Loose edits after an edit: on what their channel is called now and at their new frame, but one that would land on another stays where it was. */
export function followLoose(
  loose: readonly LooseEdit[],
  before: Project,
  { mapping, project }: Edited,
): readonly LooseEdit[] {
  const stays = staying(before, project);
  const kept = renamed(
    filtered(loose, ({ channel }) => stays(partOf(channel))),
    mapping,
  );
  if (!mapping.frame || kept.length === 0) return kept;
  const frames = kept.map(({ channel, frame }) => frameAfter(mapping, frame, channel) ?? frame);
  const place = (i: number) => `${kept[i]!.channel}@${frames[i]}`;
  for (let again = true; again;) {
    again = false;
    const held = new Set(kept.flatMap(({ frame }, i) => (frames[i] === frame ? [place(i)] : [])));
    kept.forEach(({ frame }, i) => {
      if (frames[i] === frame) return;
      if (held.has(place(i))) {
        frames[i] = frame;
        again = true;
      }
      held.add(place(i));
    });
  }
  return kept.map((edit, i) => (frames[i] === edit.frame ? edit : { ...edit, frame: frames[i]! }));
}

/** Loose edits of channels that are called anew; those of channels that went are gone. The very list where none is. */
function renamed(loose: readonly LooseEdit[], { curve }: Mapping): readonly LooseEdit[] {
  if (!curve || loose.every(({ channel }) => curve(channel) === channel)) return loose;
  return loose.flatMap((edit) => {
    const channel = curve(edit.channel);
    return channel === null ? [] : [channel === edit.channel ? edit : { ...edit, channel }];
  });
}

/** What undo makes of the pointers: the selection of before comes back, the rest where nobody changed it since the edit. */
export function pointersBack(now: Pointers, from: Pointers, to: Pointers): Pointers {
  const { parts, channels, keys, handles } = to;
  return {
    parts,
    channels,
    keys,
    handles,
    only: now.only === from.only ? to.only : now.only,
    lane: now.lane === from.lane ? to.lane : now.lane,
    pinned: now.pinned === from.pinned ? to.pinned : now.pinned,
    stakes: now.stakes === from.stakes ? to.stakes : now.stakes,
    held: now.held === from.held ? to.held : now.held,
  };
}

function stakeAfter(stake: TimeKnot, mapping: Mapping): TimeKnot {
  return { from: timeAfter(mapping, stake.from), to: timeAfter(mapping, stake.to) };
}

function spanAfter({ start, end }: Span, mapping: Mapping): Span {
  return { start: timeAfter(mapping, start), end: timeAfter(mapping, end) };
}

/** Whether a part that was there before an edit is still there. */
function staying({ parts: before }: Project, { parts: after }: Project): (part: string) => boolean {
  const isThere = (place: number) => before[place]!.id === after[place]!.id;
  if (after.length >= before.length && changedPlaces(before, after).every(isThere)) return () => true;
  const known = new Set(after.map(({ id }) => id));
  return (part) => known.has(part);
}

function partOf(channel: string): string {
  return channel.slice(0, channel.indexOf('/'));
}

/** A list without some of its items; the very same list where all stay. */
function filtered<T>(list: readonly T[], stays: (item: T) => boolean): readonly T[] {
  return list.every(stays) ? list : list.filter(stays);
}
