/** out = a·b for affine matrices, 16 numbers column-major each; `out` may be b itself, not a. Allocates nothing. */
export function multiplyAffine(out: Float64Array, a: Float64Array, b: Float64Array): void {
  const a0 = a[0]!;
  const a1 = a[1]!;
  const a2 = a[2]!;
  const a4 = a[4]!;
  const a5 = a[5]!;
  const a6 = a[6]!;
  const a8 = a[8]!;
  const a9 = a[9]!;
  const a10 = a[10]!;
  for (let at = 0; at < 12; at += 4) {
    const b0 = b[at]!;
    const b1 = b[at + 1]!;
    const b2 = b[at + 2]!;
    out[at] = a0 * b0 + a4 * b1 + a8 * b2;
    out[at + 1] = a1 * b0 + a5 * b1 + a9 * b2;
    out[at + 2] = a2 * b0 + a6 * b1 + a10 * b2;
    out[at + 3] = 0;
  }
  const x = b[12]!;
  const y = b[13]!;
  const z = b[14]!;
  out[12] = a0 * x + a4 * y + a8 * z + a[12]!;
  out[13] = a1 * x + a5 * y + a9 * z + a[13]!;
  out[14] = a2 * x + a6 * y + a10 * z + a[14]!;
  out[15] = 1;
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
