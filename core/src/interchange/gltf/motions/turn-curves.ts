import { mat3, quat } from 'gl-matrix';
import { TURN_ORDERS, type TurnOrder, type Vec3 } from '../../../project';
import { anglesNear, turnOf } from '../../../rig';
import { approximate, hermite, type Approximated, type LegMotion } from './approximate';
import type { CurveKey } from './leg-curves';
import type { Keyed } from './sampler';

/** A turn may be off by this, in degrees: the end of an arm of a metre by 0.03 mm. */
export const TURN_TOLERANCE = 0.002;
const DEGREES = 180 / Math.PI;

/** A leg is followed in steps of at most so many degrees, a cubic one in so many steps. */
const STEP_DEGREES = 25;
const CUBIC_STEPS = 8;

type Quaternion = [number, number, number, number];

/** The turns of a node in all its motions, as angles in one turn order. */
export interface TurnKeys {
  readonly order: TurnOrder;
  /** For each motion the keys of the three angles. */
  readonly motions: readonly (readonly (readonly CurveKey[])[])[];
  /** The greatest error in degrees. */
  readonly error: number;
}

/**
 * Turns given by quaternions as angles without jumps. Where all turning is about one axis of the node itself or of its parent, the
 * turn order has that axis last or first, and the angle alone moves, exactly; else it is the order that needs the fewest keys,
 * the usual one first. `rest` are the angles in the usual order, from which the first key goes on.
 */
export function turnKeys(motions: readonly Keyed[], rest: Vec3): TurnKeys {
  const least = motions.reduce((sum, { frames }) => sum + frames.length, 0);
  const axis = orderOfOneAxis(motions);
  let best: TurnKeys | null = null;
  let fewest = Infinity;
  for (const order of axis ? [axis] : TURN_ORDERS) {
    const near = order === 'XYZ' ? rest : anglesNear(order, turnOf('XYZ', rest), rest);
    const made = motions.map((motion) => inOrder(motion, order, near));
    const keys = made.reduce((sum, each) => sum + each.keys[0]!.length, 0);
    if (keys >= fewest) continue;
    fewest = keys;
    const error = Math.max(...made.map((each) => each.error)) * TURN_TOLERANCE;
    best = { order, motions: made.map((each) => each.keys), error };
    if (keys === least) break;
  }
  return best!;
}

/** Orders with an axis last and first, in which it turns by itself. */
const LAST: readonly TurnOrder[] = ['YZX', 'XZY', 'XYZ'];
const FIRST: readonly TurnOrder[] = ['XYZ', 'YXZ', 'ZXY'];
/** Two turns are about one axis when all else between them is less than this, the sine of half of it. */
const ASIDE = 1e-6;

/** The turn order in which motions turn about one axis; null where they turn about several. */
function orderOfOneAxis(motions: readonly Keyed[]): TurnOrder | null {
  const reference = unit(motions[0]!.values);
  const [own, above] = [new Float64Array(3), new Float64Array(3)];
  for (const { values, interpolation } of motions) {
    if (interpolation === 'STEP') continue;
    for (let at = 0; at < values.length; at += 4) {
      const turn = unit(values, at);
      note(own, product(conjugated(reference), turn));
      note(above, product(turn, conjugated(reference)));
    }
  }
  for (const axis of [2, 0, 1]) {
    if (isAlone(above, axis) && FIRST[axis] === 'XYZ') return 'XYZ';
    if (isAlone(own, axis)) return LAST[axis]!;
  }
  const parents = [0, 1, 2].find((axis) => isAlone(above, axis));
  return parents === undefined ? null : FIRST[parents]!;
}

/** The greatest share of each axis so far. */
function note(most: Float64Array, turn: Quaternion): void {
  for (let n = 0; n < 3; n++) most[n] = Math.max(most[n]!, Math.abs(turn[n]!));
}

function isAlone(most: Float64Array, axis: number): boolean {
  return most.every((share, n) => n === axis || share < ASIDE);
}

function conjugated([x, y, z, w]: Quaternion): Quaternion {
  return [-x, -y, -z, w];
}

function product(a: Quaternion, b: Quaternion): Quaternion {
  return quat.multiply([0, 0, 0, 1], a, b) as Quaternion;
}

function inOrder(motion: Keyed, order: TurnOrder, near: Vec3): Approximated {
  const { frames, interpolation } = motion;
  const key = (i: number) => unit(motion.values, i * 4);
  const first = anglesOf(order, key(0), near);
  if (interpolation === 'STEP' || frames.length === 1) {
    let at: readonly number[] = first;
    const values = Array.from(frames, (_, i) => (at = anglesOf(order, key(i), at)));
    const keys = [0, 1, 2].map((n) =>
      Array.from(frames, (frame, i): CurveKey => ({
        frame,
        value: values[i]![n]!,
        before: 'straight',
        after: 'held',
      })),
    );
    return { keys, error: 0 };
  }
  const legs = Array.from({ length: frames.length - 1 }, (_, i): LegMotion => {
    const turn = interpolation === 'LINEAR' ? arcOf(key(i), key(i + 1)) : cubicOf(motion, i);
    return {
      from: frames[i]!,
      to: frames[i + 1]!,
      steps:
        interpolation === 'LINEAR'
          ? Math.ceil(angleBetween(key(i), key(i + 1)) / STEP_DEGREES) || 1
          : CUBIC_STEPS,
      read: (share, angles) => anglesOf(order, turn(share), angles),
      error: (share, shown) => apart(turn(share), quaternionOf(order, shown)) / TURN_TOLERANCE,
    };
  });
  return approximate(legs, first);
}

/** The shortest way from one turn to another at constant speed. */
function arcOf(a: Quaternion, b: Quaternion): (share: number) => Quaternion {
  return (share) => unit(quat.slerp([0, 0, 0, 1], a, b, share));
}

/** By how many degrees the shortest way from one turn to another turns. */
function angleBetween(a: Quaternion, b: Quaternion): number {
  const cosine = Math.abs(a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3]);
  return 2 * Math.acos(Math.min(1, cosine)) * DEGREES;
}

function cubicOf({ frames, values, before, after }: Keyed, i: number): (share: number) => Quaternion {
  const length = frames[i + 1]! - frames[i]!;
  const [a, b] = [i * 4, i * 4 + 4];
  return (u) =>
    unit(
      [0, 1, 2, 3].map((n) =>
        hermite(values[a + n]!, after[a + n]! * length, values[b + n]!, before[b + n]! * length, u),
      ),
    );
}

function unit(q: ArrayLike<number>, at = 0): Quaternion {
  const [x, y, z, w] = [q[at]!, q[at + 1]!, q[at + 2]!, q[at + 3]!];
  const length = Math.hypot(x, y, z, w);
  return length > 0 ? [x / length, y / length, z / length, w / length] : [0, 0, 0, 1];
}

function anglesOf(order: TurnOrder, turn: Quaternion, near: readonly number[]): Vec3 {
  return anglesNear(order, mat3.fromQuat(new Float64Array(9), turn), near as unknown as Vec3);
}

function quaternionOf(order: TurnOrder, angles: readonly number[]): Quaternion {
  let made: Quaternion = [0, 0, 0, 1];
  for (const letter of order) {
    const axis = 'XYZ'.indexOf(letter);
    const half = angles[axis]! / 2 / DEGREES;
    const turn: Quaternion = [0, 0, 0, Math.cos(half)];
    turn[axis] = Math.sin(half);
    made = product(made, turn);
  }
  return made;
}

/** The angle between two turns in degrees. */
function apart(a: Quaternion, b: Quaternion): number {
  const [x, y, z] = product(conjugated(a), b);
  return 2 * Math.asin(Math.min(1, Math.hypot(x, y, z))) * DEGREES;
}
