import {
  channelName,
  partOf,
  SIGNED_AXES,
  type Project,
  type Result,
  type SignedAxis,
  type Vec3,
} from '../../project';
import { compile, type Program, pivotAt, seenFrom, worldAt } from '../../evaluate';
import { addParts } from '../bring-into';
import { newPart } from '../new-part';
import { changeCurves, newKey, withKeys } from '../curves';
import { addConstraint } from './constraints';
import { framesOf, isStill } from './transform-motion';
import { refused } from './refused';

/** An arm of two links: what its upper link hangs on, the two links, and the part at its end. */
export interface Arm {
  readonly base: string | null;
  readonly upper: string;
  readonly lower: string;
  readonly tip: string;
}

/** The arm that a part is the end of: what it hangs on, and what that hangs on; null where there are no two. */
export function armOf(project: Project, tip: string): Arm | null {
  const lower = partOf(project, tip)?.parent ?? null;
  const upper = lower === null ? null : (partOf(project, lower)?.parent ?? null);
  if (lower === null || upper === null) return null;
  return { base: partOf(project, upper)?.parent ?? null, upper, lower, tip };
}

/**
 * Plants the end of an arm from one frame to another: its elbow bends while what it stands on moves. A goal part is made where the
 * end is, riding on the arm’s base and keyed where the arm moved by itself; the arm reaches for it, and the goal is planted. An arm
 * that reaches already only gets one more span: its goal is planted again.
 */
export function plantArm(
  project: Project,
  tip: string,
  start: number,
  end: number,
  fade: number,
): Result<{ readonly project: Project; readonly goal: string }> {
  const arm = armOf(project, tip);
  if (!arm)
    return refused(
      `${partOf(project, tip)?.name ?? tip} is not the end of two links that hang on each other.`,
    );
  const reaching = project.constraints.find(
    (each) => each.kind === 'reach' && each.tip === tip && !each.muted,
  );
  const made =
    reaching?.kind === 'reach'
      ? ({ ok: true, value: { project, goal: reaching.target } } as const)
      : withGoal(project, arm);
  if (!made.ok) return made;
  const planted = addConstraint(made.value.project, 'plant', made.value.goal, { start, end, fade });
  return planted.ok
    ? { ok: true, value: { project: planted.value.project, goal: made.value.goal } }
    : planted;
}

function withGoal(project: Project, arm: Arm): Result<{ readonly project: Project; readonly goal: string }> {
  const compiled = compile(project);
  if (!compiled.ok) return compiled;
  const program = compiled.value;
  const name = `${partOf(project, arm.tip)!.name} goal`;
  const { first, last } = framesOf(project, arm.tip);
  const places = Array.from({ length: last - first + 1 }, (_, i) => {
    const place = pivotAt(program, project, arm.tip, first + i);
    return seenFrom(program, arm.base, first + i, place) ?? place;
  });
  const rest = places[0]!;
  const standing = {
    ...newPart('group', name),
    id: `${arm.tip}-goal`,
    rest: { translate: rest, rotate: [0, 0, 0], scale: [1, 1, 1] },
  } as const;
  const { project: withPart, added } = addParts(project, { parts: [standing], assets: [] }, arm.base);
  const goal = added[0]!;
  let keyed = withPart;
  for (const n of [0, 1, 2]) {
    const values = places.map((place) => place[n]!);
    if (values.every((value) => isStill(value, values[0]!))) continue;
    const keys = values.map((value, i) => newKey(first + i, value));
    keyed = changeCurves(keyed, [channelName(goal, `translate.${'xyz'.charAt(n)}`)], (curve) =>
      withKeys(curve, keys),
    );
  }
  const { axis, bend } = elbowOf(program, project, arm, first);
  const reach = addConstraint(keyed, 'reach', arm.upper, {
    middle: arm.lower,
    tip: arm.tip,
    target: goal,
    axis,
    bend,
  });
  return reach.ok ? { ok: true, value: { project: reach.value.project, goal } } : reach;
}

/** About which of its own axes an arm bends, and to which side: that which is nearest across its three joints. */
function elbowOf(
  program: Program,
  project: Project,
  { upper, lower, tip }: Arm,
  frame: number,
): { readonly axis: SignedAxis; readonly bend: 1 | -1 } {
  const [root, elbow, end] = [upper, lower, tip].map((id) => pivotAt(program, project, id, frame)) as [
    Vec3,
    Vec3,
    Vec3,
  ];
  const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
  const [a, b] = [minus(elbow, root), minus(end, elbow)];
  const across: Vec3 = [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
  const world = worldAt(program, upper, frame);
  const along = (axis: number) =>
    [0, 1, 2].reduce((sum, row) => sum + world[axis * 4 + row]! * across[row]!, 0);
  const shares = [0, 1, 2].map(along);
  const greatest = shares.reduce(
    (best, share, n) => (Math.abs(share) > Math.abs(shares[best]!) ? n : best),
    2,
  );
  const axis = SIGNED_AXES[greatest * 2]!;
  return { axis, bend: shares[greatest]! < 0 ? -1 : 1 };
}
