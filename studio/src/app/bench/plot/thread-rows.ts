import type { Interlock, Part, Project } from '@kaizen/core';
import { ruleWords } from '../stage/interlock-words';

/** A key that waits: a track of its own under the channel that it is of. */
export interface ThreadRow {
  readonly kind: 'thread';
  readonly id: string;
  readonly part: Part;
  readonly depth: number;
  readonly lock: Interlock;
  readonly words: string;
}

export const NO_THREADS: readonly Interlock[] = [];
const byChannel = new WeakMap<readonly Interlock[], ReadonlyMap<string, readonly Interlock[]>>();

/** The interlocks of the clip that plays whose keys are of a channel. */
export function threadsOf({ interlocks, activeClip }: Project, channel: string): readonly Interlock[] {
  if (interlocks.length === 0) return NO_THREADS;
  let known = byChannel.get(interlocks);
  if (!known) {
    const made = new Map<string, Interlock[]>();
    for (const lock of interlocks) made.set(lock.channel, [...(made.get(lock.channel) ?? []), lock]);
    byChannel.set(interlocks, (known = made));
  }
  return known.get(channel)?.filter(({ clip }) => clip === activeClip) ?? NO_THREADS;
}

/** The channels of the clip that plays that an interlock ties, on either end. */
export function tiedChannels({ interlocks, activeClip }: Project): ReadonlySet<string> {
  const own = interlocks.filter(({ clip }) => clip === activeClip);
  return new Set(own.flatMap(({ channel, after }) => [channel, after.channel]));
}

/** The rows of the threads that stand under a channel's. */
export function threadsUnder(
  project: Project,
  part: Part,
  channel: string,
  depth: number,
): readonly ThreadRow[] {
  return threadsOf(project, channel).map((lock) => ({
    kind: 'thread',
    id: lock.id,
    part,
    depth,
    lock,
    words: ruleWords(project, lock),
  }));
}
