import { channelName, partOf, type Key, type Leg, type Project, type Squash } from '../project';
import { compile, type Program, pivotAt, seenFrom, worldAt } from '../evaluate';
import { withDescendants } from '../rig';
import { shapeMesh } from '../shape';
import { changeCurves, curveOf, keyAtFrame, newKey, withKeys } from './curves';
import { insertKeys } from './insert-key';
import { transformAt } from './links/transform-motion';
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
    : changePart(project, id, (each) => ({ ...each, squash: squashOf(project, id, frame) }));
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

/**
 * A squash along Y about the lowest point that a part with all that rides on it has at a frame, straight under its pivot. Of a part that is turned
 * it goes along the parent's axes, so that it flattens against the ground.
 */
function squashOf(project: Project, id: string, frame: number): Squash {
  const none: Squash = { axis: 'y', anchor: [0, 0, 0], frame: 'part' };
  const compiled = compile(project);
  const part = partOf(project, id);
  const lowest = compiled.ok ? lowestOf(project, compiled.value, id, frame) : Infinity;
  if (!compiled.ok || !part || !Number.isFinite(lowest)) return none;
  const pivot = pivotAt(compiled.value, project, id, frame);
  const { rotate } = transformAt(compiled.value, part, frame);
  if (rotate.some((angle) => angle % 360 !== 0))
    return {
      axis: 'y',
      frame: 'parent',
      anchor: [part.pivot[0], tidy(part.pivot[1] + lowest - pivot[1]), part.pivot[2]],
    };
  const under = seenFrom(compiled.value, id, frame, [pivot[0], lowest, pivot[2]]);
  return under ? { ...none, anchor: [tidy(under[0]), tidy(under[1]), tidy(under[2])] } : none;
}

/** The height of the lowest corner of the simple shapes of a part and all that rides on it, undeformed. */
function lowestOf(project: Project, program: Program, id: string, frame: number): number {
  let lowest = Infinity;
  for (const each of withDescendants(project.parts, id)) {
    const part = partOf(project, each);
    if (part?.kind !== 'mesh' || part.geometry.shape === 'asset') continue;
    const world = worldAt(program, each, frame);
    const { positions } = shapeMesh(part.geometry);
    for (let n = 0; n < positions.length; n += 3)
      lowest = Math.min(
        lowest,
        world[1]! * positions[n]! +
          world[5]! * positions[n + 1]! +
          world[9]! * positions[n + 2]! +
          world[13]!,
      );
  }
  return lowest;
}

/** Without the noise of computing with it. */
function tidy(metres: number): number {
  return Math.round(metres * 1e9) / 1e9 + 0;
}
