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
