import { NO_DIRECTION, NOT_FINITE, type SignedAxis } from '../../project';
import { invertLinear, multiplyByTransposed, multiplyLinear, turnBetween, turnIn } from '../linear';
import { axisNumber } from '../place';
import type { Held } from './constraint';
import { turnAboutPivot } from './move';

/** Two axes as nearly along one line as this count as one: "straight up". */
const STRAIGHT = 1e-9;

const frame = new Float64Array(9);
const turn = new Float64Array(9);
const target = new Float64Array(9);
const outside = new Float64Array(9);
const whole = new Float64Array(9);
const inverse = new Float64Array(9);
const by = new Float64Array(9);

/**
 * Writes the frame whose `axis` points along a direction and whose `up` axis is as near to the world's +Y as it can be (to −Z where
 * the direction is straight up or down). False where the direction has no length.
 */
export function aimedFrame(
  out: Float64Array,
  dx: number,
  dy: number,
  dz: number,
  axis: SignedAxis,
  up: SignedAxis,
): boolean {
  const length = Math.hypot(dx, dy, dz);
  if (!(length > 0) || !Number.isFinite(length)) return false;
  const d = [dx / length, dy / length, dz / length];
  const upright = Math.hypot(d[0]!, d[2]!) >= STRAIGHT;
  const along = upright ? d[1]! : -d[2]!;
  const u = upright
    ? [-along * d[0]!, 1 - along * d[1]!, -along * d[2]!]
    : [-along * d[0]!, -along * d[1]!, -1 - along * d[2]!];
  const upLength = Math.hypot(...u);
  const a = axisNumber(axis);
  const b = axisNumber(up);
  const third = 3 - a.number - b.number;
  for (let row = 0; row < 3; row++) {
    out[a.number * 3 + row] = a.sign * d[row]!;
    out[b.number * 3 + row] = (b.sign * u[row]!) / upLength;
  }
  // The third axis is the product of the other two, in the order x, y, z.
  const first = ((third + 1) % 3) * 3;
  const second = ((third + 2) % 3) * 3;
  for (let row = 0; row < 3; row++) {
    const [i, j] = [(row + 1) % 3, (row + 2) % 3];
    out[third * 3 + row] = out[first + i]! * out[second + j]! - out[first + j]! * out[second + i]!;
  }
  return true;
}

/**
 * Puts a frame in the place of a part's axes, by a weight (slerp from these to it); the part's own turn acts inside it, the parent's
 * size stays outside, the pivot stays. Gives 0 or why it can't.
 */
export function takeFrame(held: Held, wanted: Float64Array, weight: number): number {
  if (!turnIn(turn, held.axes)) return NOT_FINITE;
  turnBetween(target, turn, wanted, weight);
  // axes = outside · turn; they become outside · target.
  multiplyByTransposed(outside, held.axes, turn);
  multiplyLinear(whole, outside, target);
  invertLinear(inverse, held.axes);
  multiplyLinear(by, whole, inverse);
  if (!Number.isFinite(by[0]!)) return NOT_FINITE;
  turnAboutPivot(held, by);
  return 0;
}

/** Turns a part so that its axis points along a direction from its pivot. */
export function aimAlong(
  held: Held,
  dx: number,
  dy: number,
  dz: number,
  aim: { readonly axis: SignedAxis; readonly up: SignedAxis; readonly weight: number },
): number {
  if (!aimedFrame(frame, dx, dy, dz, aim.axis, aim.up)) return NO_DIRECTION;
  return takeFrame(held, frame, aim.weight);
}

/** Axis and up may not lie along one line. */
export function alongOneLine(aim: { readonly axis: SignedAxis; readonly up: SignedAxis }): {
  readonly at: readonly string[];
  readonly message: string;
} | null {
  if (axisNumber(aim.axis).number !== axisNumber(aim.up).number) return null;
  return {
    at: ['up'],
    message: `up is ${aim.up} and axis ${aim.axis}, which lie along one line; up must be another axis`,
  };
}
