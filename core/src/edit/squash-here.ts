import { channelName, partOf, type Key, type Leg, type Project, type Squash, type Vec3 } from '../project';
import { shapeMesh } from '../shape';
import { changeCurves, curveOf, keyAtFrame, newKey, withKeys } from './curves';
import { insertKeys } from './insert-key';
import { changePart } from './parts';

/** The three frames of a squash about the one of the contact: stretched before, squashed, stretched after. */
export interface SquashPattern {
  readonly before: number;
  readonly contact: number;
  readonly after: number;
}

/** A squash as clay has it: longer as it comes, flat where it meets, a little longer as it leaves. */
export const USUAL_PATTERN: SquashPattern = { before: 0.14, contact: -0.25, after: 0.11 };

/**
 * Lays a squash over five frames about a contact: as it is, stretched, squashed, stretched, as it is. The first and the last keep what
 * the channel shows there, and its curve outside them stays as it is. Held legs let nothing creep in between. A part that has no
 * squash yet gets one about its lowest point.
 */
export function squashHere(
  project: Project,
  id: string,
  frame: number,
  { before, contact, after }: SquashPattern,
  held: boolean,
): Project {
  const part = partOf(project, id);
  if (!part) return project;
  const channel = channelName(id, 'squash');
  const [first, last] = [frame - 2, frame + 2];
  const ready = part.squash
    ? project
    : changePart(project, id, (each) => ({ ...each, squash: squashOf(project, id) }));
  const known = curveOf(ready, channel)?.keys.length ?? 0;
  const cut =
    known > 0
      ? insertKeys(ready, [
          { channel, frame: first },
          { channel, frame: last },
        ])
      : ready;
  const leg: Leg = held ? { kind: 'hold' } : { kind: 'curve' };
  return changeCurves(cut, [channel], (curve) => {
    const outer = curve.keys.filter((key) => key.frame < first || key.frame > last);
    const start: Key = keyAtFrame(curve, first) ?? newKey(first, 0);
    const end: Key = keyAtFrame(curve, last) ?? newKey(last, 0, leg);
    const inner = [before, contact, after].map((value, i) => newKey(frame - 1 + i, value, leg));
    return withKeys(curve, [...outer, { ...start, leg }, ...inner, end]);
  });
}

/** A squash along Y about the lowest point of a part's own shape. */
function squashOf(project: Project, id: string): Squash {
  const part = partOf(project, id);
  const lowest: Vec3 =
    part?.kind === 'mesh' && part.geometry.shape !== 'asset'
      ? [
          0,
          shapeMesh(part.geometry).positions.reduce(
            (least, n, i) => (i % 3 === 1 ? Math.min(least, n) : least),
            Infinity,
          ),
          0,
        ]
      : [0, 0, 0];
  return { axis: 'y', anchor: lowest, frame: 'part' };
}
