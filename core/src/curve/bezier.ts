import type { Jet } from '../law';

/**
 * One leg as a cubic Bézier in (time, value), time in shares of the leg: control points (0, 0), (a, c1), (b, c2),
 * (1, dv), values relative to the leg's first key. With reach in [0.001, 0.99] time rises strictly with the parameter.
 */

/** The error of time that a Halley step may leave: its cube, times the bend over the slope there. */
const SETTLED = 1e-16;
/** A step this short leaves an error below the last bits. */
const SHORT = 1e-7;

/**
 * The parameter u at which the leg's time is x. Two Halley steps from a guess that is right at the start and in the middle
 * settle many legs, one of Newton's nearly all others; the few that are left are solved inside a bracket. Beyond
 * the middle the mirrored leg is solved, where the parameter is small and so exact to its own last bits.
 */
export function solveBezierTime(a: number, b: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const half = 0.125 * (1 + 3 * (a + b));
  return x <= half ? solveNear(a, b, x, half) : 1 - solveNear(1 - b, 1 - a, 1 - x, 1 - half);
}

/** Solves for u up to the middle, where the time is `half`. */
function solveNear(a: number, b: number, x: number, half: number): number {
  const c1 = 3 * a;
  const c2 = 3 * (b - 2 * a);
  const c3 = 1 + 3 * (a - b);
  const twoC2 = 2 * c2;
  const threeC3 = 3 * c3;
  const sixC3 = 6 * c3;
  // the guess is n / d; the first step is taken with all of it times the cube of d, so that guess and step divide once
  const n = x * half;
  const d = c1 * (half - x) + 2 * n;
  const nn = n * n;
  const nd = n * d;
  const dd = d * d;
  const error = n * (c3 * nn + c2 * nd + c1 * dd) - x * dd * d;
  const slope = threeC3 * nn + twoC2 * nd + c1 * dd;
  const halley = 2 * slope * slope - error * (sixC3 * n + twoC2 * d);
  let u = (n * halley - 2 * error * slope) / (d * halley);
  let f = ((c3 * u + c2) * u + c1) * u - x;
  let d1 = (threeC3 * u + twoC2) * u + c1;
  const d2 = sixC3 * u + twoC2;
  const second = (2 * f * d1) / (2 * d1 * d1 - f * d2);
  u -= second;
  if (Math.abs(second * second * second) * (0.25 * d2 * d2 + Math.abs(c3) * d1) <= SETTLED * d1 * d1)
    return u;
  f = ((c3 * u + c2) * u + c1) * u - x;
  d1 = (threeC3 * u + twoC2) * u + c1;
  const last = f / d1;
  const bend = Math.abs(sixC3 * u + twoC2) + Math.abs(sixC3);
  return Math.abs(last) * bend <= SHORT * d1 ? u - last : solveBracketed(c1, c2, c3, x);
}

/** Halley steps kept inside a bracket that shrinks, until a step no longer changes u. */
function solveBracketed(c1: number, c2: number, c3: number, x: number): number {
  let low = 0;
  let high = 0.5;
  let u = 0.25;
  for (let step = 0; step < 64; step++) {
    const f = ((c3 * u + c2) * u + c1) * u - x;
    if (f === 0) return u;
    if (f > 0) high = u;
    else low = u;
    const d1 = (3 * c3 * u + 2 * c2) * u + c1;
    const d2 = 6 * c3 * u + 2 * c2;
    const next = u - (2 * f * d1) / (2 * d1 * d1 - f * d2);
    if (next >= low && next <= high) {
      if (Math.abs(next - u) <= SHORT) return next;
      u = next;
    } else {
      if (high - low <= Number.EPSILON * high) return u;
      u = (low + high) / 2;
    }
  }
  return u;
}

/** Value of the leg at parameter u, relative to its first key. */
export function bezierValue(c1: number, c2: number, dv: number, u: number): number {
  const w = 1 - u;
  return u * (3 * w * (w * c1 + u * c2) + u * u * dv);
}

/** Value and its derivatives per frame at parameter u, for a leg of `dt` frames. */
export function bezierJet(
  a: number,
  b: number,
  c1: number,
  c2: number,
  dv: number,
  dt: number,
  u: number,
): Jet {
  const [, x1, x2, x3] = cubicDerivatives(a * dt, b * dt, dt, u);
  const [, y1, y2, y3] = cubicDerivatives(c1, c2, dv, u);
  const bend = y2 * x1 - y1 * x2;
  return [
    bezierValue(c1, c2, dv, u),
    y1 / x1,
    bend / x1 ** 3,
    ((y3 * x1 - y1 * x3) * x1 - 3 * x2 * bend) / x1 ** 5,
  ];
}

/** Derivatives by u of the cubic with Bernstein coefficients 0, p, q, r. */
function cubicDerivatives(p: number, q: number, r: number, u: number): Jet {
  const w = 1 - u;
  return [
    bezierValue(p, q, r, u),
    3 * (w * w * p + 2 * w * u * (q - p) + u * u * (r - q)),
    6 * (w * (q - 2 * p) + u * (r - 2 * q + p)),
    6 * (r - 3 * q + 3 * p),
  ];
}
