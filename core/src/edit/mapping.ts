import type { Project } from '../project';
import { curvesByChannel, haveSameCurves, keyAtFrame, type KeyRef } from './curves';

/**
 * What became of the things that an edit moved. Whatever points into a project from outside it (a selection, loose edits,
 * Stakes, pinned rows) goes through the mapping of each edit and so keeps pointing at the same things. What an edit does not say
 * stays where it was.
 */
export interface Mapping {
  /** Where a key, or a value that waits to be one, stands now; null where it went. Frames in, frames out. */
  readonly frame?: (frame: number, curve: string) => number | null;
  /** What a curve is called now; null where it went. */
  readonly curve?: (name: string) => string | null;
  /** Where a moment of the shot is now: for what stands on the ruler. Only edits that move time itself give it. */
  readonly time?: (frame: number) => number;
}

/** A project after an edit, with where things went. */
export interface Edited {
  readonly project: Project;
  readonly mapping: Mapping;
}

/** An edit: project in, project out, with a mapping where it moved something. */
export type Edit = (project: Project) => Project | Edited;

export const NOTHING_MOVED: Mapping = {};

/** What an edit gave, with a mapping in any case. */
export function asEdited(given: Project | Edited): Edited {
  return 'mapping' in given ? given : { project: given, mapping: NOTHING_MOVED };
}

export function curveAfter({ curve }: Mapping, name: string): string | null {
  return curve ? curve(name) : name;
}

export function frameAfter({ frame: map }: Mapping, frame: number, curve: string): number | null {
  return map ? map(frame, curve) : frame;
}

export function timeAfter({ time }: Mapping, frame: number): number {
  return time ? time(frame) : frame;
}

/**
 * Keys (or handles) after an edit: each where it stands now, without those that went. The very same list where all stayed.
 */
export function followKeys<T extends KeyRef>(
  keys: readonly T[],
  before: Project,
  { project, mapping }: Edited,
): readonly T[] {
  if (keys.length === 0 || haveSameCurves(before, project)) return keys;
  const [old, now] = [curvesByChannel(before), curvesByChannel(project)];
  let changed = false;
  const next: T[] = [];
  for (const ref of keys) {
    const moved = keyAfter(ref, mapping);
    const name = moved?.channel;
    if (moved === ref && old.get(ref.channel) === now.get(ref.channel)) {
      next.push(ref);
      continue;
    }
    const curve = name === undefined ? undefined : now.get(name);
    const kept = moved && curve && keyAtFrame(curve, moved.frame) ? moved : null;
    changed ||= kept !== ref;
    if (kept) next.push(kept);
  }
  return changed ? next : keys;
}

function keyAfter<T extends KeyRef>(ref: T, mapping: Mapping): T | null {
  const channel = curveAfter(mapping, ref.channel);
  const frame = frameAfter(mapping, ref.frame, ref.channel);
  if (channel === null || frame === null) return null;
  return channel === ref.channel && frame === ref.frame ? ref : { ...ref, channel, frame };
}

/** Names of curves after an edit, without those that went; the very same list where all stayed. */
export function followCurves(names: readonly string[], mapping: Mapping): readonly string[] {
  if (!mapping.curve) return names;
  const next = names.flatMap((name) => curveAfter(mapping, name) ?? []);
  return next.length === names.length && next.every((name, i) => name === names[i]) ? names : next;
}

/** Where the keys of a curve went, from old frames to new; null: gone. Keys that are not named stayed. */
export type KeysWent = ReadonlyMap<number, number | null>;

/** The mapping of an edit that gave keys of some curves other frames. */
export function movedKeys(went: ReadonlyMap<string, KeysWent>): Mapping {
  if (went.size === 0) return NOTHING_MOVED;
  const placeOf = (frame: number, keys: KeysWent | undefined) => {
    const now = keys?.get(frame);
    return now === undefined ? frame : now;
  };
  return { frame: (frame, curve) => placeOf(frame, went.get(curve)) };
}
