import type { Part } from '../project';
import {
  changedPlaces,
  channelName,
  firstAfter,
  partProperties,
  replacedAt,
  splitChannel,
  TRANSFORM_PROPERTIES,
} from '../project';
import { hierarchy, transformFrame, type Hierarchy, type TransformFrame } from '../rig';
import { withOneMore } from './lists';

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
  readonly standsFree: Uint8Array;
  /** First channel slot of each part. */
  readonly firstSlot: Int32Array;
  readonly channels: readonly string[];
  readonly rest: Float64Array<ArrayBuffer>;
  /** The slot of a channel. */
  readonly slots: Finder;
  /** The place of a part in the file. */
  readonly partIndex: Finder;
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

/** Places of parts by id. Lists that grew out of each other share the map: what stands there is checked against the list. */
class PartFinder implements Finder {
  constructor(
    private readonly parts: readonly Part[],
    readonly shared: Map<string, number>,
  ) {}

  get(id: string): number | undefined {
    const place = this.shared.get(id);
    return place !== undefined && this.parts[place]?.id === id ? place : undefined;
  }
  has(id: string): boolean {
    return this.get(id) !== undefined;
  }
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

type Arrays = Pick<
  Structure,
  'hierarchy' | 'frames' | 'standsFree' | 'firstSlot' | 'channels' | 'rest' | 'grownFrom'
>;

function finished(parts: readonly Part[], shared: Map<string, number>, arrays: Arrays): Structure {
  const { firstSlot } = arrays;
  const partIndex = new PartFinder(parts, shared);
  return {
    parts,
    ...arrays,
    slots: new SlotFinder(parts, partIndex, firstSlot),
    partIndex,
    partOfSlot: (slot) => firstAfter(firstSlot, slot) - 1,
  };
}

function build(parts: readonly Part[]): Structure {
  const channels: string[] = [];
  const rest: number[] = [];
  const firstSlot = new Int32Array(parts.length);
  parts.forEach((part, i) => {
    firstSlot[i] = channels.length;
    for (const entry of partProperties(part)) {
      channels.push(channelName(part.id, entry.property));
      rest.push(entry.rest);
    }
  });
  const above = hierarchy(parts);
  const frames = parts.map(transformFrame);
  return finished(parts, new Map(parts.map((part, i) => [part.id, i])), {
    hierarchy: above,
    frames,
    standsFree: Uint8Array.from(frames, (frame, i) => standsFree(frame, above.parents[i]!)),
    firstSlot,
    channels,
    rest: Float64Array.from(rest),
  });
}

/** The structure of a list in which some parts are others, with the same channels, or one was added at the end; else null. */
function takenOver(parts: readonly Part[], previous: Structure): Structure | null {
  const before = previous.parts;
  if (parts.length !== before.length && parts.length !== before.length + 1) return null;
  const changed = changedPlaces(before, parts);
  const shared = (previous.partIndex as PartFinder).shared;
  if (parts.length > before.length)
    return changed.length > 0 ? null : grown(parts, parts.at(-1)!, previous, shared);
  let { rest, frames, standsFree: free } = previous;
  for (const i of changed) {
    const [part, was] = [parts[i]!, before[i]!];
    const properties = partProperties(part);
    const old = partProperties(was);
    const alike =
      properties.length === old.length && properties.every((each, n) => each.property === old[n]!.property);
    if (part.id !== was.id || part.parent !== was.parent || !alike) return null;
    if (properties.some((each, n) => each.rest !== old[n]!.rest)) {
      if (rest === previous.rest) rest = rest.slice();
      properties.forEach((each, n) => (rest[previous.firstSlot[i]! + n] = each.rest));
    }
    if (isFramedAlike(part, was)) continue;
    frames = replacedAt(frames, i, transformFrame(part));
    free = free.slice();
    free[i] = standsFree(frames[i]!, previous.hierarchy.parents[i]!);
  }
  const { hierarchy: above, firstSlot, channels } = previous;
  return finished(parts, shared, {
    hierarchy: above,
    frames,
    standsFree: free,
    firstSlot,
    channels,
    rest,
  });
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
  shared: Map<string, number>,
): Structure | null {
  const place = previous.parts.length;
  const parent = part.parent === null ? -1 : previous.partIndex.get(part.parent);
  if (parent === undefined) return null;
  shared.set(part.id, place);
  const properties = partProperties(part);
  const frame = transformFrame(part);
  const free = new Uint8Array(place + 1);
  free.set(previous.standsFree);
  free[place] = standsFree(frame, parent);
  return finished(parts, shared, {
    hierarchy: {
      order: withOneMore(previous.hierarchy.order, place),
      parents: withOneMore(previous.hierarchy.parents, parent),
    },
    frames: [...previous.frames, frame],
    standsFree: free,
    firstSlot: withOneMore(previous.firstSlot, previous.channels.length),
    grownFrom: { firstSlot: previous.firstSlot, frames: previous.frames, rest: previous.rest },
    channels: previous.channels.concat(properties.map(({ property }) => channelName(part.id, property))),
    rest: extendedBy(
      previous.rest,
      properties.map(({ rest }) => rest),
    ),
  });
}

function standsFree(frame: TransformFrame, parent: number): number {
  return frame.plain && parent < 0 ? 1 : 0;
}

function extendedBy(list: Float64Array, more: readonly number[]): Float64Array<ArrayBuffer> {
  const longer = new Float64Array(list.length + more.length);
  longer.set(list);
  longer.set(more, list.length);
  return longer;
}
