import type { KeyRef } from '@kaizen/core';

const byList = new WeakMap<readonly KeyRef[], ReadonlyMap<string, ReadonlySet<number>>>();
const NONE: ReadonlySet<number> = new Set();

/** Chosen keys (or handles) by channel: the frames of each. Sorted once a list, however many ask. */
export function chosenByChannel(keys: readonly KeyRef[]): ReadonlyMap<string, ReadonlySet<number>> {
  const known = byList.get(keys);
  if (known) return known;
  const map = new Map<string, Set<number>>();
  for (const { channel, frame } of keys) {
    const frames = map.get(channel);
    if (frames) frames.add(frame);
    else map.set(channel, new Set([frame]));
  }
  byList.set(keys, map);
  return map;
}

/** The frames of the chosen keys of one channel. */
export function chosenFrames(keys: readonly KeyRef[], channel: string): ReadonlySet<number> {
  return chosenByChannel(keys).get(channel) ?? NONE;
}
