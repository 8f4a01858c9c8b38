/** out = a·b for affine matrices, 16 numbers column-major each; `out` may be b itself, not a. Allocates nothing. */
export function multiplyAffine(out: Float64Array, a: Float64Array, b: Float64Array): void {
  for (let column = 0; column < 4; column++) {
    const at = column * 4;
    const b0 = b[at]!;
    const b1 = b[at + 1]!;
    const b2 = b[at + 2]!;
    const b3 = column === 3 ? 1 : 0;
    out[at] = a[0]! * b0 + a[4]! * b1 + a[8]! * b2 + a[12]! * b3;
    out[at + 1] = a[1]! * b0 + a[5]! * b1 + a[9]! * b2 + a[13]! * b3;
    out[at + 2] = a[2]! * b0 + a[6]! * b1 + a[10]! * b2 + a[14]! * b3;
    out[at + 3] = b3;
  }
}

/** The inverse of an affine matrix; not finite where there is none. `out` must not be `m`. */
export function invertAffine(out: Float64Array, m: Float64Array): void {
  const c00 = m[5]! * m[10]! - m[9]! * m[6]!;
  const c01 = m[9]! * m[2]! - m[1]! * m[10]!;
  const c02 = m[1]! * m[6]! - m[5]! * m[2]!;
  const d = 1 / (m[0]! * c00 + m[4]! * c01 + m[8]! * c02);
  out[0] = c00 * d;
  out[1] = c01 * d;
  out[2] = c02 * d;
  out[4] = (m[8]! * m[6]! - m[4]! * m[10]!) * d;
  out[5] = (m[0]! * m[10]! - m[8]! * m[2]!) * d;
  out[6] = (m[4]! * m[2]! - m[0]! * m[6]!) * d;
  out[8] = (m[4]! * m[9]! - m[8]! * m[5]!) * d;
  out[9] = (m[8]! * m[1]! - m[0]! * m[9]!) * d;
  out[10] = (m[0]! * m[5]! - m[4]! * m[1]!) * d;
  out[3] = out[7] = out[11] = 0;
  for (let row = 0; row < 3; row++)
    out[12 + row] = -(out[row]! * m[12]! + out[4 + row]! * m[13]! + out[8 + row]! * m[14]!);
  out[15] = 1;
}
