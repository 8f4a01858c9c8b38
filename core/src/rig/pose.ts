import type { TurnOrder, Vec3 } from '../project';
import { turnMatrix } from './local-matrix';

/** Posing by hand: directions and turns in the axes of a part, its parent or the world, as channel values. */
export type AxisSpace = 'own' | 'parent' | 'world';

const ORDERS: Readonly<Record<TurnOrder, readonly [number, number, number]>> = {
  XYZ: [0, 1, 2],
  XZY: [0, 2, 1],
  YXZ: [1, 0, 2],
  YZX: [1, 2, 0],
  ZXY: [2, 0, 1],
  ZYX: [2, 1, 0],
};
const DEGREES = 180 / Math.PI;

/** The 3×3 turn, column-major, of Euler angles in degrees. */
export function turnOf(order: TurnOrder, angles: Vec3): Float64Array {
  const out = new Float64Array(9);
  turnMatrix(out, ORDERS[order], angles, 0);
  return out;
}

/**
 * The angles in degrees, in a turn order, of a 3×3 turn; of all that give it, those nearest to `near`, so that
 * whole revolutions are kept.
 */
export function anglesNear(order: TurnOrder, turn: ArrayLike<number>, near: Vec3): Vec3 {
  const [i, j, k] = ORDERS[order];
  const sign = (j - i + 3) % 3 === 1 ? 1 : -1;
  const at = (row: number, column: number) => turn[column * 3 + row]!;
  const angles: [number, number, number] = [0, 0, 0];
  angles[j] = Math.asin(Math.max(-1, Math.min(1, sign * at(i, k)))) * DEGREES;
  if (Math.abs(at(i, k)) < 1 - 1e-12) {
    angles[i] = Math.atan2(-sign * at(j, k), at(k, k)) * DEGREES;
    angles[k] = Math.atan2(-sign * at(i, j), at(i, i)) * DEGREES;
  } else {
    angles[i] = near[i] ?? 0;
    const rest = multiplied(transposed(turnOf(order, angles)), turn);
    const [a, b] = [(k + 1) % 3, (k + 2) % 3];
    angles[k] = Math.atan2(rest[a * 3 + b]!, rest[a * 3 + a]!) * DEGREES;
    return unwound(angles, near);
  }
  const other: [number, number, number] = [0, 0, 0];
  other[i] = (angles[i] ?? 0) + 180;
  other[j] = 180 - (angles[j] ?? 0);
  other[k] = (angles[k] ?? 0) + 180;
  return nearer(unwound(angles, near), unwound(other, near), near);
}

function unwound(angles: Vec3, near: Vec3): Vec3 {
  return [0, 1, 2].map(
    (n) => angles[n]! + 360 * Math.round((near[n]! - angles[n]!) / 360),
  ) as unknown as Vec3;
}

function nearer(a: Vec3, b: Vec3, near: Vec3): Vec3 {
  const far = (angles: Vec3) => angles.reduce((sum, angle, n) => sum + Math.abs(angle - near[n]!), 0);
  return far(b) < far(a) - 1e-9 ? b : a;
}

/** The 3×3 of a world matrix with its scale taken off: unit axes, column-major. */
export function unitAxes(world: ArrayLike<number>): Float64Array {
  const out = new Float64Array(9);
  for (let column = 0; column < 3; column++) {
    const length = Math.hypot(world[column * 4]!, world[column * 4 + 1]!, world[column * 4 + 2]!) || 1;
    for (let row = 0; row < 3; row++) out[column * 3 + row] = world[column * 4 + row]! / length;
  }
  return out;
}

const IDENTITY = Float64Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1);

/** The world directions of the three axes of a space, column-major; `parent` is the parent's world matrix or null. */
export function spaceAxes(
  space: AxisSpace,
  parent: ArrayLike<number> | null,
  order: TurnOrder,
  angles: Vec3,
): Float64Array {
  if (space === 'world') return IDENTITY;
  const above = parent ? unitAxes(parent) : IDENTITY;
  return space === 'parent' ? above : multiplied(above, turnOf(order, angles));
}

function transposed(m: ArrayLike<number>): Float64Array {
  return Float64Array.from({ length: 9 }, (_, n) => m[(n % 3) * 3 + Math.floor(n / 3)]!);
}

function multiplied(a: ArrayLike<number>, b: ArrayLike<number>): Float64Array {
  const out = new Float64Array(9);
  for (let column = 0; column < 3; column++) {
    for (let row = 0; row < 3; row++) {
      out[column * 3 + row] =
        a[row]! * b[column * 3]! + a[3 + row]! * b[column * 3 + 1]! + a[6 + row]! * b[column * 3 + 2]!;
    }
  }
  return out;
}

/** What a shift in the world adds to a part's translate channels: the shift seen from its parent, scale and all. */
export function translateOf(shift: Vec3, parent: ArrayLike<number> | null): Vec3 {
  if (!parent) return shift;
  const m = (row: number, column: number) => parent[column * 4 + row]!;
  const determinant = (a: Vec3, b: Vec3, c: Vec3) =>
    a[0] * (b[1] * c[2] - b[2] * c[1]) -
    b[0] * (a[1] * c[2] - a[2] * c[1]) +
    c[0] * (a[1] * b[2] - a[2] * b[1]);
  const column = (n: number): Vec3 => [m(0, n), m(1, n), m(2, n)];
  const [x, y, z] = [column(0), column(1), column(2)];
  const whole = determinant(x, y, z);
  if (Math.abs(whole) < 1e-12) return [0, 0, 0];
  return [
    determinant(shift, y, z) / whole,
    determinant(x, shift, z) / whole,
    determinant(x, y, shift) / whole,
  ];
}

/**
 * Euler angles after turning by `degrees` about one axis of a space. About an axis that alone is turned
 * the angle is simply added.
 */
export function turnedAngles(
  space: AxisSpace,
  axis: number,
  degrees: number,
  order: TurnOrder,
  angles: Vec3,
  parent: ArrayLike<number> | null,
): Vec3 {
  const alone = angles.every((angle, n) => n === axis || angle % 360 === 0);
  if (alone && (space !== 'world' || !parent)) {
    return angles.map((angle, n) => (n === axis ? angle + degrees : angle)) as unknown as Vec3;
  }
  const now = turnOf(order, angles);
  const amount: [number, number, number] = [0, 0, 0];
  amount[axis] = degrees;
  const step = turnOf('XYZ', amount);
  if (space === 'own') return anglesNear(order, multiplied(now, step), angles);
  if (space === 'parent' || !parent) return anglesNear(order, multiplied(step, now), angles);
  const above = unitAxes(parent);
  return anglesNear(order, multiplied(multiplied(multiplied(transposed(above), step), above), now), angles);
}

/** Euler angles after turning by `degrees` about a unit direction of the world, right-handed (Rodrigues' rotation formula). */
export function turnedAboutDirection(
  direction: Vec3,
  degrees: number,
  order: TurnOrder,
  angles: Vec3,
  parent: ArrayLike<number> | null,
): Vec3 {
  const [x, y, z] = direction;
  const [c, s] = [Math.cos(degrees / DEGREES), Math.sin(degrees / DEGREES)];
  const t = 1 - c;
  const step = [
    t * x * x + c,
    t * x * y + s * z,
    t * x * z - s * y,
    t * x * y - s * z,
    t * y * y + c,
    t * y * z + s * x,
    t * x * z + s * y,
    t * y * z - s * x,
    t * z * z + c,
  ];
  const above = parent ? unitAxes(parent) : IDENTITY;
  const seen = multiplied(multiplied(transposed(above), step), above);
  return anglesNear(order, multiplied(seen, turnOf(order, angles)), angles);
}
