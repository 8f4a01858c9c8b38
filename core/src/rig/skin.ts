/** Four joints and their shares a vertex, as glTF's JOINTS_0 and WEIGHTS_0 say. */
export interface SkinWeights {
  readonly joints: ArrayLike<number>;
  readonly weights: ArrayLike<number>;
}

/**
 * The matrices of a skin: each joint's world matrix times its inverse bind matrix, 16 numbers a joint, column-major (glTF 2.0,
 * 3.7.3.3). What they move lies in the world; the matrix of the part that bears the mesh takes no part.
 */
export function jointMatrices(
  out: Float64Array,
  worlds: readonly ArrayLike<number>[],
  inverseBinds: readonly ArrayLike<number>[],
): void {
  worlds.forEach((world, joint) => {
    const bind = inverseBinds[joint]!;
    for (let column = 0; column < 4; column++)
      for (let row = 0; row < 4; row++) {
        let sum = 0;
        for (let k = 0; k < 4; k++) sum += world[k * 4 + row]! * bind[column * 4 + k]!;
        out[joint * 16 + column * 4 + row] = sum;
      }
  });
}

/** The matrix that moves one vertex: those of its joints by their shares, column-major. */
export function blendMatrix(
  out: Float64Array,
  matrices: ArrayLike<number>,
  { joints, weights }: SkinWeights,
  vertex: number,
): void {
  out.fill(0);
  for (let k = vertex * 4; k < vertex * 4 + 4; k++) {
    const share = weights[k]!;
    if (share === 0) continue;
    const first = joints[k]! * 16;
    for (let i = 0; i < 16; i++) out[i] = out[i]! + share * matrices[first + i]!;
  }
}
