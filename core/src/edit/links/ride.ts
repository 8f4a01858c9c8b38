import { mat4 } from 'gl-matrix';
import { partOf, type Part, type Project, type Result } from '../../project';
import { compile, compileAfter, distance, pivotAt, type Program } from '../../evaluate';
import { withDescendants } from '../../rig';
import { changePart } from '../parts';
import { refused } from './refused';
import { movedNumbers } from './moved-numbers';
import { framesOf, keyCount, movedChannels, writeTransforms } from './transform-motion';

/** What stays as it is when a part comes to ride on another: its place at a frame, its whole motion in the world, or its numbers. */
export type Keeps = 'place' | 'motion' | 'numbers';

/** How a change of parent ended. */
export interface Ridden {
  readonly project: Project;
  /** How far its pivot jumps at the frame, in metres. */
  readonly jump: number;
  /** What became of its keys: they stay, they moved by one amount each, or there is one on every frame now. */
  readonly keys: 'stay' | 'moved' | 'every-frame';
  /** Why its place could not stay: a driver gives it, or it would have to be sheared. */
  readonly because: 'driven' | 'shear' | null;
}

/**
 * Hangs a part below another (or below none), in the way `keeps` says; `frame` is the one at which its place stays. Its own motion goes
 * on: a keyed channel that only has to be another by one amount keeps its keys. A ring is refused.
 */
export function ride(
  project: Project,
  id: string,
  parent: string | null,
  keeps: Keeps,
  frame: number,
): Result<Ridden> {
  const part = partOf(project, id);
  const refusal = part ? whyNot(project, part, parent) : `there is no part ${id}`;
  if (!part || refusal !== null) return refused(refusal!);
  const hung = changePart(project, id, (each) => (each.parent === parent ? each : { ...each, parent }));
  if (hung === project) return { ok: true, value: { project, jump: 0, keys: 'stay', because: null } };
  const before = compile(project);
  if (!before.ok) return before;
  const moved = keeps === 'numbers' ? null : stayed(project, hung, before.value, part, parent, keeps, frame);
  const made = moved && typeof moved === 'object' ? moved.project : hung;
  const after = compileAfter(project, made);
  if (!after.ok) return after;
  return {
    ok: true,
    value: {
      project: made,
      jump: distance(pivotAt(before.value, project, id, frame), pivotAt(after.value, made, id, frame)),
      keys: moved && typeof moved === 'object' ? moved.keys : 'stay',
      because: typeof moved === 'string' ? moved : null,
    },
  };
}

/** Why a part can't ride on another, in one sentence; null where it can. */
export function whyNotRide(project: Project, id: string, parent: string | null): string | null {
  const part = partOf(project, id);
  return part ? whyNot(project, part, parent) : `there is no part ${id}`;
}

function whyNot(project: Project, part: Part, parent: string | null): string | null {
  if (parent === null) return null;
  const above = partOf(project, parent);
  if (!above) return `there is no part ${parent}`;
  if (above.id === part.id) return `${part.name} can’t ride on itself`;
  if (withDescendants(project.parts, part.id).includes(parent))
    return `${part.name} can’t ride on ${above.name}: ${above.name} rides on ${part.name}`;
  return null;
}

function stayed(
  project: Project,
  hung: Project,
  program: Program,
  part: Part,
  parent: string | null,
  keeps: 'place' | 'motion',
  frame: number,
): { readonly project: Project; readonly keys: Ridden['keys'] } | 'driven' | 'shear' {
  const { keyed, driven } = movedChannels(project, part.id);
  const isStill = keyed.size + driven.size === 0 && keeps === 'place';
  const { first, last } = isStill ? { first: frame, last: frame } : framesOf(project, part.id);
  const by = keeps === 'place' ? between(program, part.parent, parent, frame) : null;
  const moved = movedNumbers(
    program,
    part,
    { first, last },
    (at) => by ?? between(program, part.parent, parent, at),
  );
  if (!moved) return 'shear';
  const written = writeTransforms(hung, part.id, moved.first, moved.before, moved.after);
  if (!written) return 'driven';
  return { project: written, keys: keysAfter(hung, written) };
}

/** The matrix that takes what stands in one part's space into another's, at a frame; null where the other has no inside. */
function between(program: Program, from: string | null, to: string | null, frame: number): mat4 | null {
  const world = (id: string | null) => {
    const out = mat4.identity(new Float64Array(16));
    if (id !== null) {
      program.worldMatrix(program.structure.partIndex.get(id)!, frame, out as unknown as Float64Array);
    }
    return out;
  };
  const inverse = mat4.invert(new Float64Array(16), world(to));
  return inverse && mat4.multiply(inverse, inverse, world(from));
}

function keysAfter(before: Project, after: Project): Ridden['keys'] {
  if (before.clips === after.clips) return 'stay';
  return keyCount(before) === keyCount(after) ? 'moved' : 'every-frame';
}
