import type { Key, Project } from '../../project';
import { changeCurves, withKeys } from '../curves';
import { openChannels } from './retime';

/**
 * Closes a loop on some channels: the value and sides of each first key stand once more at `end`, what lies after it goes, and the curve loops
 * from its last key. The range runs to `end` and loops, so that playing leaves the frame out that shows what the start shows.
 * A channel whose keys all lie at or after `end` is left alone.
 */
export function closeLoop(project: Project, channels: readonly string[], end: number): Project {
  const closed = changeCurves(project, openChannels(project, channels), (curve) => {
    const first = curve.keys[0]!;
    if (first.frame >= end) return curve;
    const last: Key = { ...first, frame: end };
    const kept = curve.keys.filter(({ frame }) => frame < end);
    const keyed = withKeys(curve, [...kept, last]);
    return { ...keyed, after: { ...keyed.after, mode: 'loop' } };
  });
  const { range } = project;
  if (end <= range.start) return closed;
  return range.end === end && range.loop ? closed : { ...closed, range: { ...range, end, loop: true } };
}
