import { mat4 } from 'gl-matrix';
import { activeClip, partOf, type Axis, type Project, type Result, type Vec3 } from '../../project';
import { compile } from '../../evaluate';
import { bringInto } from '../bring-into';
import { changePart } from '../parts';
import { refused } from '../links/refused';
import { movedNumbers } from '../links/moved-numbers';
import { framesOf, movedChannels, writeTransforms } from '../links/transform-motion';
import { subProject } from './sub-project';

/** Copies that were made: their ids, the first one's first. */
export interface Copied {
  readonly project: Project;
  readonly copies: readonly string[];
}

/** No more copies than this are made at once. */
export const MOST_COPIES = 200;

/**
 * Copies of a part with all that rides on it and its keys, each `step` metres further along than the one before, in the axes of
 * what the part rides on.
 */
export function copyAlong(project: Project, id: string, count: number, step: Vec3): Result<Copied> {
  return copies(project, id, count, (n) =>
    mat4.fromTranslation(matrix(), [step[0] * n, step[1] * n, step[2] * n]),
  );
}

/** Copies round an axis through a point, in the space of what the part rides on: each `degrees` further than the one before. */
export function copyAround(
  project: Project,
  id: string,
  count: number,
  axis: Axis,
  degrees: number,
  centre: Vec3,
): Result<Copied> {
  const direction: Vec3 = [axis === 'x' ? 1 : 0, axis === 'y' ? 1 : 0, axis === 'z' ? 1 : 0];
  return copies(project, id, count, (n) => {
    const turned = mat4.fromTranslation(matrix(), [...centre]);
    mat4.rotate(turned, turned, (degrees * n * Math.PI) / 180, [...direction]);
    return mat4.translate(turned, turned, [-centre[0], -centre[1], -centre[2]]);
  });
}

/** A copy mirrored in the plane across an axis of what the part rides on, through its origin: its keys run the other way. */
export function mirrorCopy(project: Project, id: string, axis: Axis): Result<Copied> {
  return copies(project, id, 1, () =>
    mat4.fromScaling(matrix(), [axis === 'x' ? -1 : 1, axis === 'y' ? -1 : 1, axis === 'z' ? -1 : 1]),
  );
}

function matrix(): mat4 {
  return new Float64Array(16);
}

function copies(project: Project, id: string, count: number, place: (n: number) => mat4): Result<Copied> {
  const part = partOf(project, id);
  if (!part) return refused(`there is no part ${id}`);
  if (!Number.isInteger(count) || count < 1 || count > MOST_COPIES)
    return refused(
      `so many copies can’t be made at once; it must be a whole number from 1 to ${MOST_COPIES}`,
    );
  const compiled = compile(project);
  if (!compiled.ok) return compiled;
  const { keyed, driven } = movedChannels(project, id);
  const frames = keyed.size + driven.size === 0 ? { first: 0, last: 0 } : framesOf(project, id);
  const one = subProject(project, id);
  let made = project;
  const roots: string[] = [];
  for (let n = 1; n <= count; n++) {
    const before = made;
    const { project: next, added } = bringInto(before, one);
    const root = added[one.parts.findIndex((each) => each.id === id)]!;
    const under = changePart(next, root, (each) => ({
      ...each,
      parent: part.parent,
      name: `${part.name} ${n + 1}`,
    }));
    const by = place(n);
    const moved = movedNumbers(compiled.value, part, frames, () => by);
    if (!moved) return refused(`${part.name} would have to lean there, which place, turn and size can’t say`);
    const { first, before: from, after: to } = moved;
    const written = writeTransforms(inOneClip(before, under), root, first, from, to);
    if (!written) return refused(`${part.name} is driven, and would have to be driven otherwise`);
    made = written;
    roots.push(root);
  }
  return { ok: true, value: { project: made, copies: roots } };
}

/** Curves that came as a clip of their own go into the clip that plays. */
function inOneClip(before: Project, after: Project): Project {
  const fresh = after.clips.slice(before.clips.length).flatMap(({ curves }) => curves);
  const playing = activeClip(before)?.id;
  return {
    ...after,
    activeClip: before.activeClip,
    range: before.range,
    clips: before.clips.map((clip) =>
      clip.id === playing ? { ...clip, curves: [...clip.curves, ...fresh] } : clip,
    ),
  };
}
