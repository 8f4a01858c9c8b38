import type { Curve, Project } from '../../project';
import { activeClip, eachKey } from '../../project';
import { curveOf, framesByChannel, type KeyRef } from '../curves';
import { mapKeyPlaces } from '../keys';
import type { Edited } from '../mapping';

/** All keys of the active clip that stand off the whole frame, those of locked curves left out. */
export function keysOffTheFrame(project: Project): readonly KeyRef[] {
  return (activeClip(project)?.curves ?? []).filter((curve) => !curve.locked).flatMap(offTheFrame);
}

const offCache = new WeakMap<Curve, readonly KeyRef[]>();
function offTheFrame(curve: Curve): readonly KeyRef[] {
  const known = offCache.get(curve);
  if (known) return known;
  const refs: KeyRef[] = [];
  eachKey(curve, (frame) => {
    if (!Number.isInteger(frame)) refs.push({ channel: curve.channel, frame });
  });
  offCache.set(curve, refs);
  return refs;
}

/** The keys among some that would fall together with another key of their channel on a whole frame. */
export function fallingTogether(project: Project, refs: readonly KeyRef[]): readonly KeyRef[] {
  return [...framesByChannel(refs)].flatMap(([channel, frames]) => {
    const keys = curveOf(project, channel)?.keys ?? [];
    const landing = new Map<number, number>();
    const goal = (frame: number) => (frames.has(frame) ? Math.round(frame) : frame);
    for (const { frame } of keys) landing.set(goal(frame), (landing.get(goal(frame)) ?? 0) + 1);
    return keys
      .filter(({ frame }) => frames.has(frame) && !Number.isInteger(frame) && landing.get(goal(frame))! > 1)
      .map(({ frame }) => ({ channel, frame }));
  });
}

/**
 * Puts keys on their nearest whole frames. Those that would fall together with another key stay where they are, or, with
 * `merge`, take its place: the later key stays.
 */
export function toWholeFrames(
  project: Project,
  refs: readonly KeyRef[],
  options: { readonly merge?: boolean } = {},
): Edited {
  const stay = options.merge
    ? new Map<string, Set<number>>()
    : framesByChannel(fallingTogether(project, refs));
  const moving = refs.filter(({ channel, frame }) => !stay.get(channel)?.has(frame));
  return mapKeyPlaces(project, moving, (key) => ({ frame: Math.round(key.frame), value: key.value }));
}
