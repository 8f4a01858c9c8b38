import { partOf, type Part, type Project, type Result, type TurnOrder, type Vec3 } from '../../project';
import { compile } from '../../evaluate';
import { anglesNear, LEAST_SQUASH, localMatrix, transformFrame, turnOf } from '../../rig';
import { changePart } from '../parts';
import {
  framesOf,
  keyCount,
  movedChannels,
  transformAt,
  writeTransforms,
  type Transform,
} from './transform-motion';
import { refused } from './refused';

/** What an edit of a part's frame came to. */
export interface Reframed {
  readonly project: Project;
  /** Whether there is a key on every frame now where there were few. */
  readonly everyFrame: boolean;
}

const NO_SQUASH = 0;

/**
 * Moves a part's pivot and nothing else: mesh, children and motion stay where they are on every whole frame of the shot. Where the
 * part turns or grows by keys, its place gets keys that make up for it: t′ = t + K·(1 − R·S)·(p − p′), with K the squash along the
 * parent's axes (contract §7). Refused where a driver gives the place.
 */
export function movePivot(project: Project, id: string, pivot: Vec3): Result<Reframed> {
  return reframed(
    project,
    id,
    (part) => ({ ...part, pivot }),
    (part, own, squash) => {
      const matrix = new Float64Array(16);
      const values = Float64Array.of(0, 0, 0, ...own.rotate, ...own.scale, NO_SQUASH);
      localMatrix(matrix, { ...transformFrame(part), pivot: [0, 0, 0], plain: true }, values, 0);
      const d = part.pivot.map((value, n) => value - pivot[n]!);
      const off = d.map(
        (value, row) => value - (matrix[row]! * d[0]! + matrix[4 + row]! * d[1]! + matrix[8 + row]! * d[2]!),
      );
      const stretched = off.map((value, row) => value * squashFactor(part, squash, row));
      return { ...own, translate: own.translate.map((value, n) => value + stretched[n]!) as unknown as Vec3 };
    },
  );
}

/** By how much a squash along the parent's axes stretches one of them (contract §7). */
function squashFactor(part: Part, amount: number, axis: number): number {
  if (part.squash?.frame !== 'parent' || part.squash.round) return 1;
  const along = Math.max(LEAST_SQUASH, 1 + amount);
  return axis === 'xyz'.indexOf(part.squash.axis) ? along : 1 / Math.sqrt(along);
}

/**
 * Gives a part another turn order with its motion as it was on every whole frame. Turning about one axis alone has the same numbers
 * in all orders, and so keeps its keys.
 */
export function changeTurnOrder(project: Project, id: string, order: TurnOrder): Result<Reframed> {
  let last: Vec3 | null = null;
  let lastOwn: Vec3 = [0, 0, 0];
  return reframed(
    project,
    id,
    (part) => ({ ...part, turnOrder: order }),
    (part, own) => {
      const near = last === null ? own.rotate : own.rotate.map((value, n) => last![n]! + value - lastOwn[n]!);
      const alone = own.rotate.filter((angle) => angle !== 0).length < 2;
      const rotate =
        alone && last === null
          ? own.rotate
          : anglesNear(order, turnOf(part.turnOrder, own.rotate), near as unknown as Vec3);
      last = rotate;
      lastOwn = own.rotate;
      return { ...own, rotate };
    },
  );
}

/** Changes a part, and its nine numbers with it, frame by frame. */
function reframed(
  project: Project,
  id: string,
  change: (part: Part) => Part,
  numbers: (part: Part, own: Transform, squash: number) => Transform,
): Result<Reframed> {
  const part = partOf(project, id);
  const compiled = compile(project);
  if (!compiled.ok) return compiled;
  if (!part) return refused(`there is no part ${id}`);
  const program = compiled.value;
  const { keyed, driven } = movedChannels(project, id);
  const squash = program.structure.slots.get(`${id}/squash`)!;
  const moves =
    keyed.size + driven.size > 0 || program.curveAt(squash) !== undefined || program.isDriven(squash);
  const { first, last } = moves ? framesOf(project, id) : { first: 0, last: 0 };
  const before: Transform[] = [];
  const after: Transform[] = [];
  for (let frame = first; frame <= last; frame++) {
    const own = transformAt(program, part, frame);
    before.push(own);
    after.push(numbers(part, own, program.channelValue(squash, frame)));
  }
  const written = writeTransforms(changePart(project, id, change), id, first, before, after);
  if (!written)
    return refused(
      `${part.name} is driven, and what drives it would have to be another; mute the driver, or bake it to keys first`,
    );
  return { ok: true, value: { project: written, everyFrame: keyCount(written) > keyCount(project) } };
}
