/** 3×3 matrices, nine numbers column-major. */

export function multiplyLinear(out: Float64Array, a: ArrayLike<number>, b: ArrayLike<number>): void {
  for (let column = 0; column < 3; column++) {
    const b0 = b[column * 3]!;
    const b1 = b[column * 3 + 1]!;
    const b2 = b[column * 3 + 2]!;
    for (let row = 0; row < 3; row++)
      out[column * 3 + row] = a[row]! * b0 + a[3 + row]! * b1 + a[6 + row]! * b2;
  }
}

/** out = a·bᵀ; `out` must be neither. */
export function multiplyByTransposed(out: Float64Array, a: ArrayLike<number>, b: ArrayLike<number>): void {
  for (let column = 0; column < 3; column++)
    for (let row = 0; row < 3; row++)
      out[column * 3 + row] =
        a[row]! * b[column]! + a[3 + row]! * b[3 + column]! + a[6 + row]! * b[6 + column]!;
}

export function determinant(m: ArrayLike<number>): number {
  return (
    m[0]! * (m[4]! * m[8]! - m[7]! * m[5]!) -
    m[3]! * (m[1]! * m[8]! - m[7]! * m[2]!) +
    m[6]! * (m[1]! * m[5]! - m[4]! * m[2]!)
  );
}

/** The inverse by cofactors; not finite where there is none. `out` must not be `m`. */
export function invertLinear(out: Float64Array, m: ArrayLike<number>): void {
  const d = 1 / determinant(m);
  out[0] = (m[4]! * m[8]! - m[7]! * m[5]!) * d;
  out[1] = (m[7]! * m[2]! - m[1]! * m[8]!) * d;
  out[2] = (m[1]! * m[5]! - m[4]! * m[2]!) * d;
  out[3] = (m[6]! * m[5]! - m[3]! * m[8]!) * d;
  out[4] = (m[0]! * m[8]! - m[6]! * m[2]!) * d;
  out[5] = (m[3]! * m[2]! - m[0]! * m[5]!) * d;
  out[6] = (m[3]! * m[7]! - m[6]! * m[4]!) * d;
  out[7] = (m[6]! * m[1]! - m[0]! * m[7]!) * d;
  out[8] = (m[0]! * m[4]! - m[3]! * m[1]!) * d;
}

const inverse = new Float64Array(9);

/**
 * The turn in a matrix: the orthogonal factor nearest to it (polar decomposition by Newton's iteration, Higham 1986, scaled), its
 * x axis turned round where the matrix mirrors. False where the matrix has no such factor.
 */
export function turnIn(out: Float64Array, m: ArrayLike<number>): boolean {
  for (let i = 0; i < 9; i++) out[i] = m[i]!;
  for (let round = 0; round < 40; round++) {
    invertLinear(inverse, out);
    if (!Number.isFinite(inverse[0]!)) return false;
    const scale = Math.sqrt(norm(inverse) / norm(out));
    let change = 0;
    for (let column = 0; column < 3; column++)
      for (let row = 0; row < 3; row++) {
        const i = column * 3 + row;
        const next = (out[i]! * scale + inverse[row * 3 + column]! / scale) / 2;
        change = Math.max(change, Math.abs(next - out[i]!));
        out[i] = next;
      }
    if (change < 1e-14) break;
  }
  if (determinant(out) < 0) for (let row = 0; row < 3; row++) out[row] = -out[row]!;
  return Number.isFinite(out[0]!);
}

/** The Frobenius norm. */
function norm(m: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < 9; i++) sum += m[i]! * m[i]!;
  return Math.sqrt(sum);
}

/** Writes the turn by an angle in radians about a unit axis (Rodrigues). */
export function turnAbout(out: Float64Array, x: number, y: number, z: number, angle: number): void {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  const t = 1 - c;
  out[0] = t * x * x + c;
  out[1] = t * x * y + s * z;
  out[2] = t * x * z - s * y;
  out[3] = t * x * y - s * z;
  out[4] = t * y * y + c;
  out[5] = t * y * z + s * x;
  out[6] = t * x * z + s * y;
  out[7] = t * y * z - s * x;
  out[8] = t * z * z + c;
}

const between = new Float64Array(9);
const part = new Float64Array(9);
const partly = new Float64Array(9);

/** Writes the turn that lies `share` of the way from turn `a` to turn `b`, the short way round at even pace (slerp). */
export function turnBetween(
  out: Float64Array,
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  share: number,
): void {
  if (share === 1) {
    for (let i = 0; i < 9; i++) out[i] = b[i]!;
    return;
  }
  multiplyByTransposed(between, b, a);
  shareOfTurn(part, between, share);
  multiplyLinear(partly, part, a);
  out.set(partly);
}

/** Writes a share of a turn about the turn's own axis, the short way round (by the quaternion of the turn, Shepperd 1978). */
export function shareOfTurn(out: Float64Array, turn: ArrayLike<number>, share: number): void {
  const [m00, m11, m22] = [turn[0]!, turn[4]!, turn[8]!];
  const w = 1 + m00 + m11 + m22;
  let x = turn[5]! - turn[7]!;
  let y = turn[6]! - turn[2]!;
  let z = turn[1]! - turn[3]!;
  let real = w;
  if (w < 1) {
    const xy = turn[1]! + turn[3]!;
    const xz = turn[2]! + turn[6]!;
    const yz = turn[5]! + turn[7]!;
    if (m00 >= m11 && m00 >= m22) [x, y, z, real] = [1 + m00 - m11 - m22, xy, xz, x];
    else if (m11 >= m22) [x, y, z, real] = [xy, 1 + m11 - m00 - m22, yz, y];
    else [x, y, z, real] = [xz, yz, 1 + m22 - m00 - m11, z];
  }
  const length = Math.hypot(x, y, z);
  if (length === 0) {
    turnAbout(out, 1, 0, 0, 0);
    return;
  }
  const sign = real < 0 ? -1 : 1;
  const angle = 2 * Math.atan2(length, Math.abs(real)) * sign;
  turnAbout(out, x / length, y / length, z / length, angle * share);
}
