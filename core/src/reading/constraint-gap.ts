import type { Constraint, Project } from '../project';
import { distance, pivotAt, seenFrom, worldAt, type Program } from '../evaluate';
import { constraintSpan } from '../rig';

/** How far a constraint is from what it wants: metres, or degrees where it is a direction. */
export interface ConstraintGap {
  readonly amount: number;
  readonly unit: 'm' | '°';
}

const DEGREES = 180 / Math.PI;

/**
 * How far a constraint is from what it wants at a frame, by the finished matrices: for a reach the tip from its target, for a plant the
 * pivot from where it stood, for an attach how far it slipped on what carries it, for a chase the pivot from its target’s in its axes,
 * for an aim the angle between its axis and the line to its target (a weight below 1 and a lag leave some). Null where it does not act or
 * has nothing to measure.
 */
export function constraintGap(
  program: Program,
  project: Project,
  constraint: Constraint,
  frame: number,
): ConstraintGap | null {
  const span = constraintSpan(constraint);
  if (constraint.muted || (span && (frame < span.start || (span.end !== null && frame > span.end))))
    return null;
  const at = (id: string, when = frame) => pivotAt(program, project, id, when);
  switch (constraint.kind) {
    case 'reach':
      return metres(distance(at(constraint.tip), at(constraint.target)));
    case 'plant':
      if (frame > constraint.end) return null;
      return metres(distance(at(constraint.part), at(constraint.part, constraint.start)));
    case 'attach':
      return metres(slipped(program, project, constraint.part, constraint.target, constraint.start, frame));
    case 'chase': {
      const [own, target] = [at(constraint.part), at(constraint.target)];
      const off = [0, 1, 2].map((n) =>
        constraint.axes.includes('xyz'.charAt(n)) ? own[n]! - target[n]! - constraint.offset[n]! : 0,
      );
      return metres(Math.hypot(...off));
    }
    case 'aim': {
      const matrix = worldAt(program, constraint.part, frame);
      const axis = 'xyz'.indexOf(constraint.axis.at(-1)!);
      const sign = constraint.axis.startsWith('-') ? -1 : 1;
      const [own, target] = [at(constraint.part), at(constraint.target)];
      const direction = [0, 1, 2].map((row) => sign * matrix[axis * 4 + row]!);
      const wanted = [0, 1, 2].map((row) => target[row]! - own[row]!);
      const cosine =
        direction.reduce((sum, n, row) => sum + n * wanted[row]!, 0) /
        (Math.hypot(...direction) * Math.hypot(...wanted));
      return Number.isFinite(cosine)
        ? { amount: Math.acos(Math.min(1, Math.max(-1, cosine))) * DEGREES, unit: '°' }
        : null;
    }
    case 'along':
    case 'heading':
      return null;
  }
}

function metres(amount: number): ConstraintGap {
  return { amount, unit: 'm' };
}

/** How far a part's pivot, seen from what carries it, is from where it was when it was taken along. */
function slipped(
  program: Program,
  project: Project,
  part: string,
  carrier: string,
  start: number,
  frame: number,
): number {
  const seen = (when: number) => seenFrom(program, carrier, when, pivotAt(program, project, part, when));
  const [then, now] = [seen(start), seen(frame)];
  return then && now ? distance(then, now) : Infinity;
}
