import type { Part } from '../project';
import { channelName, firstAfter, partProperties, TRANSFORM_PROPERTIES } from '../project';
import { hierarchy, transformFrame, type Hierarchy, type TransformFrame } from '../rig';

/**
 * Where everything of a list of parts lies in the flat arrays: each part has a run of channel slots beginning
 * with its transform in the order of TRANSFORM_PROPERTIES. Made once for a list of parts, shared by every
 * program over it.
 */
export interface Structure {
  readonly parts: readonly Part[];
  readonly hierarchy: Hierarchy;
  readonly frames: readonly TransformFrame[];
  /** First channel slot of each part. */
  readonly firstSlot: Int32Array;
  readonly channels: readonly string[];
  readonly rest: Float64Array;
  readonly slots: ReadonlyMap<string, number>;
  /** The place of a part in the file. */
  readonly partIndex: ReadonlyMap<string, number>;
  readonly partOfSlot: (slot: number) => number;
}

/** Translate, rotate, scale and squash: what a local matrix is made of, at the beginning of a part's slots. */
export const TRANSFORM_VALUES = 10;

export const SLOT_VISIBLE = TRANSFORM_PROPERTIES.indexOf('visible');

const cache = new WeakMap<readonly Part[], Structure>();

export function structureOf(parts: readonly Part[]): Structure {
  let structure = cache.get(parts);
  if (!structure) {
    structure = build(parts);
    cache.set(parts, structure);
  }
  return structure;
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
  return {
    parts,
    hierarchy: hierarchy(parts),
    frames: parts.map(transformFrame),
    firstSlot,
    channels,
    rest: Float64Array.from(rest),
    slots: new Map(channels.map((channel, i) => [channel, i])),
    partIndex: new Map(parts.map((part, i) => [part.id, i])),
    partOfSlot: (slot) => firstAfter(firstSlot, slot) - 1,
  };
}
