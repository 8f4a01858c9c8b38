import { activeClip, partOf, splitChannel, type Project, type Result } from '../../project';
import { withDescendants } from '../../rig';
import type { Copied } from '../build';
import { refused } from '../links/refused';
import { addDriver } from './drivers';
import { tidy, wander } from './echo-row';

/** How copies of a part play what it plays, each at another time. */
export interface Phase {
  /** Frames by which each copy is later than the one before it. */
  readonly delay: number;
  /** Whether the last copy, not the first, is the next one after the part itself. */
  readonly backwards: boolean;
  /** Every other copy the other way round. */
  readonly alternate: boolean;
  /** Frames by which each may come earlier or later than that, and the seed of what comes of it. */
  readonly vary: number;
  readonly seed: number;
}

/**
 * Copies of a part with all that rides on it, live from its one master motion: whatever is keyed in it is echoed by each copy, out of
 * phase; what its own drivers and constraints do within it, they do in each copy. `place` makes the copies where they shall stand;
 * it is given the part without its keys.
 */
export function copiesInPhase(
  project: Project,
  id: string,
  place: (project: Project) => Result<Copied>,
  phase: Phase,
): Result<Copied> {
  const part = partOf(project, id);
  if (!part) return refused(`there is no part ${id}`);
  const own = withDescendants(project.parts, id);
  const inside = new Set(own);
  const masters = (activeClip(project)?.curves ?? []).filter(
    ({ channel, keys, muted }) => keys.length > 0 && !muted && inside.has(splitChannel(channel).part),
  );
  if (masters.length === 0)
    return refused(`nothing of ${part.name} has keys: there is no motion that the copies could show`);
  const still = {
    ...project,
    clips: project.clips.map((clip) => ({
      ...clip,
      curves: clip.curves.filter(({ channel }) => !inside.has(splitChannel(channel).part)),
    })),
  };
  const copied = place(still);
  if (!copied.ok) return copied;
  const { copies } = copied.value;
  let made: Project = { ...copied.value.project, clips: project.clips };
  for (const [n, root] of copies.entries()) {
    // a copy has its parts in the order of the part it was made from
    const twins = withDescendants(made.parts, root);
    const steps = phase.backwards ? copies.length - n : n + 1;
    const delay = tidy(phase.delay * steps + phase.vary * wander(phase.seed, n));
    const gain = phase.alternate && n % 2 === 0 ? -1 : 1;
    for (const { channel } of masters) {
      const { part: of, property } = splitChannel(channel);
      const target = `${twins[own.indexOf(of)]!}/${property}`;
      const added = addDriver(made, 'echo', target, { input: channel, delay, gain });
      if (!added.ok) return added;
      made = added.value.project;
    }
  }
  return { ok: true, value: { project: made, copies } };
}
