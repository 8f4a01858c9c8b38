import {
  NO_DIRECTION,
  number,
  oneOf,
  otherwise,
  partId,
  SIGNED_AXES,
  TOO_FAR,
  TOO_NEAR,
  type ReachConstraint,
} from '../../project';
import { cornerBetween } from '../../law';
import { multiplyAffine } from '../affine';
import { turnAbout } from '../linear';
import { axisOf, placeOf } from '../place';
import type { ConstraintContext, ConstraintKind } from './constraint';
import { turnAboutPivot } from './move';

const normal = new Float64Array(3);
const first = new Float64Array(3);
const second = new Float64Array(3);
const root = new Float64Array(3);
const middlePlace = new Float64Array(3);
const tipPlace = new Float64Array(3);
const goal = new Float64Array(3);
const chain = new Float64Array(16);
const local = new Float64Array(16);
const turn = new Float64Array(9);

/** The parts from below `above` down to `part`, or null where it does not hang there. */
function chainDown(context: ConstraintContext, above: number, part: number): readonly number[] | null {
  const down: number[] = [];
  for (let at = part; at !== above; at = context.parent(at)) {
    if (at < 0) return null;
    down.unshift(at);
  }
  return down;
}

/** An angle in radians taken into (−π, π]. */
function wrapped(angle: number): number {
  const turnBack = angle - 2 * Math.PI * Math.ceil((angle - Math.PI) / (2 * Math.PI));
  return turnBack <= -Math.PI ? turnBack + 2 * Math.PI : turnBack;
}

/**
 * An arm of two links in a plane: turns the part and `middle` about an axis so that the tip's pivot meets the target's, seen along
 * that axis. Too far, it is stretched towards it; too near, folded.
 */
export const reach: ConstraintKind<ReachConstraint> = {
  says: 'reaches for {target}',
  fields: {
    middle: partId(),
    tip: partId(),
    target: partId(),
    axis: otherwise(oneOf(...SIGNED_AXES), 'z'),
    bend: otherwise(oneOf(1, -1), 1),
    weight: otherwise(number(), 1),
  },
  example: { middle: 'jib', tip: 'hook', target: 'skip' },
  make: (constraint, context) => {
    const { axis, bend, weight } = constraint;
    const part = context.part(constraint.part);
    const middle = context.part(constraint.middle);
    const tip = context.part(constraint.tip);
    const target = context.part(constraint.target);
    const upper = middle === part ? null : chainDown(context, part, middle);
    if (!upper)
      return {
        at: ['middle'],
        message: `"${constraint.middle}" does not hang below "${constraint.part}"; it must`,
      };
    const lower = tip === middle ? null : chainDown(context, middle, tip);
    if (!lower)
      return {
        at: ['tip'],
        message: `"${constraint.tip}" does not hang below "${constraint.middle}"; it must`,
      };
    const goalPivot = context.pivot(target);
    const middlePivot = context.pivot(middle);
    const tipPivot = context.pivot(tip);
    return {
      parts: [target],
      slots: [...upper, ...lower].flatMap((each) => context.transformSlots(each)),
      bends: middle,
      apply: (held, read, place) => {
        read.bend(place, 0, 0, 0, 0);
        const { world } = held;
        if (!axisOf(normal, world, axis)) return NO_DIRECTION;
        placeOf(root, world, held.pivot);
        chain.set(world);
        for (const each of upper) {
          read.local(each, local);
          multiplyAffine(local, chain, local);
          chain.set(local);
        }
        placeOf(middlePlace, chain, middlePivot);
        for (const each of lower) {
          read.local(each, local);
          multiplyAffine(local, chain, local);
          chain.set(local);
        }
        placeOf(tipPlace, chain, tipPivot);
        placeOf(goal, read.worldOf(target), goalPivot);
        planeAxes();
        const [ux, uy] = inPlane(middlePlace, root);
        const [lx, ly] = inPlane(tipPlace, middlePlace);
        const [gx, gy] = inPlane(goal, root);
        const u = Math.hypot(ux, uy);
        const l = Math.hypot(lx, ly);
        const d = Math.hypot(gx, gy);
        if (u === 0 || l === 0) return NO_DIRECTION;
        const within = Math.max(Math.abs(u - l), Math.min(u + l, d));
        const elbow = bend * (Math.PI - cornerBetween(u, l, within));
        const towards = Math.atan2(gy, gx) - Math.atan2(l * Math.sin(elbow), u + l * Math.cos(elbow));
        const upperNow = Math.atan2(uy, ux);
        const elbowNow = Math.atan2(ly, lx) - upperNow;
        const rootTurn = weight * wrapped(towards - upperNow);
        turnAbout(turn, normal[0]!, normal[1]!, normal[2]!, rootTurn);
        turnAboutPivot(held, turn);
        read.bend(place, normal[0]!, normal[1]!, normal[2]!, weight * wrapped(elbow - elbowNow));
        const rounding = 1e-12 * (u + l);
        if (d > u + l + rounding) return TOO_FAR;
        return d < Math.abs(u - l) - rounding ? TOO_NEAR : 0;
      },
    };
  },
};

/** Two axes in the plane across `normal`, turning right-handed about it. */
function planeAxes(): void {
  const [x, y, z] = [normal[0]!, normal[1]!, normal[2]!];
  const least =
    Math.abs(x) <= Math.abs(y) && Math.abs(x) <= Math.abs(z) ? 0 : Math.abs(y) <= Math.abs(z) ? 1 : 2;
  for (let row = 0; row < 3; row++) first[row] = (row === least ? 1 : 0) - normal[least]! * normal[row]!;
  const length = Math.hypot(first[0]!, first[1]!, first[2]!);
  for (let row = 0; row < 3; row++) first[row] = first[row]! / length;
  second[0] = y * first[2]! - z * first[1]!;
  second[1] = z * first[0]! - x * first[2]!;
  second[2] = x * first[1]! - y * first[0]!;
}

function inPlane(to: Float64Array, from: Float64Array): readonly [number, number] {
  let [a, b] = [0, 0];
  for (let row = 0; row < 3; row++) {
    a += (to[row]! - from[row]!) * first[row]!;
    b += (to[row]! - from[row]!) * second[row]!;
  }
  return [a, b];
}
