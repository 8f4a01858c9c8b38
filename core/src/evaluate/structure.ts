import type { Part } from '../project';
import {
  changedList,
  changedPlaces,
  NamePlaces,
  channelName,
  firstAfter,
  partProperties,
  splitChannel,
  withMore,
  TRANSFORM_PLACES,
  TRANSFORM_PROPERTIES,
} from '../project';
import { hierarchy, transformFrame, type Hierarchy, type TransformFrame } from '../rig';
import { withOneMore, withRoom } from './lists';
import { RestValues } from './rest-values';

/** Finds places and slots by name. */
export interface Finder {
  get(name: string): number | undefined;
  has(name: string): boolean;
}

/**
 * Where everything of a list of parts lies in the flat arrays: each part has a run of channel slots beginning
 * with its transform in the order of TRANSFORM_PROPERTIES. Made once for a list of parts, shared by every
 * program over it; where parts were only renamed, limited or added, what stays is taken over from the list before.
 */
export interface Structure {
  readonly parts: readonly Part[];
  readonly hierarchy: Hierarchy;
  readonly frames: readonly TransformFrame[];
  /** 1 for each part that rides on nothing and whose pivot is its origin. */
  readonly standsFree: Int32Array;
  /** First channel slot of each part. */
  readonly firstSlot: Int32Array;
  /** How many slots there are, and the channel of each. */
  readonly slotCount: number;
  readonly channelAt: (slot: number) => string;
  readonly rest: RestValues;
  /** The slot of a channel. */
  readonly slots: Finder;
  /** The place of a part in the file. */
  readonly partIndex: NamePlaces<Part>;
  readonly partOfSlot: (slot: number) => number;
  /** What this one is with a part added at its end. */
  readonly grownFrom?: Pick<Structure, 'firstSlot' | 'frames' | 'rest'>;
}

/** Translate, rotate, scale and squash: what a local matrix is made of, at the beginning of a part's slots. */
export const TRANSFORM_VALUES = 10;
export const SLOT_VISIBLE = TRANSFORM_PROPERTIES.indexOf('visible');

const cache = new WeakMap<readonly Part[], Structure>();

/** The structure of a list of parts; `previous` is that of an earlier state of the same project. */
export function structureOf(parts: readonly Part[], previous?: Structure): Structure {
  let structure = cache.get(parts);
  if (!structure) {
    structure = (previous && takenOver(parts, previous)) ?? build(parts);
    cache.set(parts, structure);
  }
  return structure;
}

const offsets = new WeakMap<Part, ReadonlyMap<string, number>>();

/** Slots of channels: a part's first one, and which of its properties it is. */
class SlotFinder implements Finder {
  constructor(
    private readonly parts: readonly Part[],
    private readonly partIndex: Finder,
    private readonly firstSlot: Int32Array,
  ) {}

  get(channel: string): number | undefined {
    const { part: id, property } = splitChannel(channel);
    const place = this.partIndex.get(id);
    if (place === undefined) return undefined;
    const transform = TRANSFORM_PLACES.get(property);
    if (transform !== undefined) return this.firstSlot[place]! + transform;
    const part = this.parts[place]!;
    let own = offsets.get(part);
    if (!own) offsets.set(part, (own = new Map(partProperties(part).map((each, i) => [each.property, i]))));
    const offset = own.get(property);
    return offset === undefined ? undefined : this.firstSlot[place]! + offset;
  }
  has(channel: string): boolean {
    return this.get(channel) !== undefined;
  }
}

type Arrays = Pick<Structure, 'hierarchy' | 'frames' | 'standsFree' | 'firstSlot' | 'rest' | 'grownFrom'>;

function finished(parts: readonly Part[], partIndex: NamePlaces<Part>, arrays: Arrays): Structure {
  const { firstSlot } = arrays;
  const partOfSlot = (slot: number) => firstAfter(firstSlot, slot) - 1;
  return {
    parts,
    ...arrays,
    slotCount: arrays.rest.count,
    channelAt: (slot) => {
      const place = partOfSlot(slot);
      const part = parts[place]!;
      return channelName(part.id, partProperties(part)[slot - firstSlot[place]!]!.property);
    },
    slots: new SlotFinder(parts, partIndex, firstSlot),
    partIndex,
    partOfSlot,
  };
}

function build(parts: readonly Part[]): Structure {
  const rest: number[] = [];
  const firstSlot = Int32Array.from(parts, (part) => {
    const first = rest.length;
    for (const entry of partProperties(part)) rest.push(entry.rest);
    return first;
  });
  const { order, parents } = hierarchy(parts);
  const frames = parts.map(transformFrame);
  return finished(
    parts,
    NamePlaces.of(parts, ({ id }) => id),
    {
      hierarchy: { order: withRoom(order), parents: withRoom(parents) },
      frames,
      standsFree: withRoom(Int32Array.from(frames, (frame, i) => standsFree(frame, parents[i]!))),
      firstSlot: withRoom(firstSlot),
      rest: RestValues.of(rest),
    },
  );
}

/** The structure of a list in which some parts are others, with the same channels, or one was added at the end; else null. */
function takenOver(parts: readonly Part[], previous: Structure): Structure | null {
  const before = previous.parts;
  if (parts.length !== before.length && parts.length !== before.length + 1) return null;
  const changed = changedPlaces(before, parts);
  const places = previous.partIndex.grownTo(parts);
  if (parts.length > before.length)
    return changed.length > 0 ? null : grown(parts, parts.at(-1)!, previous, places);
  const rests = new Map<number, readonly number[]>();
  const frames = new Map<number, TransformFrame>();
  for (const i of changed) {
    const [part, was] = [parts[i]!, before[i]!];
    const properties = partProperties(part);
    const old = partProperties(was);
    const alike =
      properties.length === old.length && properties.every((each, n) => each.property === old[n]!.property);
    if (part.id !== was.id || part.parent !== was.parent || !alike) return null;
    if (properties.some((each, n) => each.rest !== old[n]!.rest))
      rests.set(
        previous.firstSlot[i]!,
        properties.map((each) => each.rest),
      );
    if (!isFramedAlike(part, was)) frames.set(i, transformFrame(part));
  }
  const { hierarchy: above, firstSlot, rest } = previous;
  return finished(parts, places, {
    hierarchy: above,
    ...(frames.size > 0
      ? framedAnew(previous, frames)
      : { frames: previous.frames, standsFree: previous.standsFree }),
    firstSlot,
    rest: rests.size > 0 ? rest.with(rests) : rest,
  });
}

function framedAnew(
  { frames, standsFree: free, hierarchy: { parents } }: Structure,
  changes: ReadonlyMap<number, TransformFrame>,
): Pick<Structure, 'frames' | 'standsFree'> {
  const next = free.slice();
  for (const [i, frame] of changes) next[i] = standsFree(frame, parents[i]!);
  return { frames: changedList(frames, changes), standsFree: next };
}

/** Whether all of a part that drivers and constraints are compiled for, besides its channels, is the same. */
function isFramedAlike(part: Part, was: Part): boolean {
  const path = part.kind === 'path' ? part.path : null;
  const wasPath = was.kind === 'path' ? was.path : null;
  return (
    part.pivot === was.pivot &&
    part.turnOrder === was.turnOrder &&
    part.squash === was.squash &&
    path === wasPath
  );
}

/** Whether all slots of an earlier structure are where they were; there may be more. */
export function growsOutOf(structure: Structure, earlier: Structure): boolean {
  if (structure.firstSlot === earlier.firstSlot) return true;
  return structure.grownFrom?.firstSlot === earlier.firstSlot;
}

/** Whether a structure is an earlier one with a part added, and nothing else. */
export function isGrown(structure: Structure, earlier: Structure): boolean {
  const from = structure.grownFrom;
  return (
    from !== undefined &&
    from.firstSlot === earlier.firstSlot &&
    from.frames === earlier.frames &&
    from.rest === earlier.rest
  );
}

/** Whether whatever was compiled for one structure holds for another. */
export function isAlike(a: Structure, b: Structure): boolean {
  return a.firstSlot === b.firstSlot && a.frames === b.frames && a.rest === b.rest;
}

function grown(
  parts: readonly Part[],
  part: Part,
  previous: Structure,
  places: NamePlaces<Part>,
): Structure | null {
  const place = previous.parts.length;
  const parent = part.parent === null ? -1 : previous.partIndex.get(part.parent);
  if (parent === undefined) return null;
  const properties = partProperties(part);
  const frame = transformFrame(part);
  return finished(parts, places, {
    hierarchy: {
      order: withOneMore(previous.hierarchy.order, place),
      parents: withOneMore(previous.hierarchy.parents, parent),
    },
    frames: withMore(previous.frames, frame),
    standsFree: withOneMore(previous.standsFree, standsFree(frame, parent)),
    firstSlot: withOneMore(previous.firstSlot, previous.slotCount),
    grownFrom: { firstSlot: previous.firstSlot, frames: previous.frames, rest: previous.rest },
    rest: previous.rest.longer(properties.map(({ rest }) => rest)),
  });
}

function standsFree(frame: TransformFrame, parent: number): number {
  return frame.plain && parent < 0 ? 1 : 0;
}
