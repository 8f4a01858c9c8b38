/**
 * A law of motion: a rise from 0 to 1 over τ in [0, 1], with its exact derivatives with respect to τ.
 * Where a derivative jumps (`breaks`), `rates` reads the piece after it, or the one before when `left`.
 */
export interface Law {
  /** H(τ) for τ in [0, 1]. */
  readonly value: (tau: number) => number;
  /** `[H, H′, H″, H‴]` at τ. Not finite where the law has no such derivative. */
  readonly rates: (tau: number, left?: boolean) => Jet;
  /** Inner points where some derivative up to the third is not continuous. */
  readonly breaks: readonly number[];
}

/** A value with its first three derivatives: the coefficients that truncated Taylor arithmetic works on. */
export type Jet = readonly [number, number, number, number];

/** The number of the piece that τ lies in, pieces parted by rising `breaks`. */
export function pieceAt(tau: number, breaks: readonly number[], left = false): number {
  let piece = 0;
  while (piece < breaks.length && (left ? tau > (breaks[piece] ?? 1) : tau >= (breaks[piece] ?? 1))) piece++;
  return piece;
}

/** The jet of `scale·g(inner·τ + …)` from g's: derivative k gets the factor `scale·inner^k`. */
export function rescaled(jet: Jet, scale: number, inner: number): Jet {
  return [
    jet[0] * scale,
    jet[1] * scale * inner,
    jet[2] * scale * inner * inner,
    jet[3] * scale * inner ** 3,
  ];
}
