/** How far an interpolated value of a track is from the exact one, 1 being as far as it may be. */
export type Tolerance = (interpolated: readonly number[], exact: readonly number[]) => number;

/** The greatest difference of two lists, number by number. */
export function largestGap(a: readonly number[], b: readonly number[]): number {
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i]!)), 0);
}

/** The angle in radians between two quaternions of one sign, the first normalised as readers do. */
export function quaternionError(a: readonly number[], b: readonly number[]): number {
  const length = Math.hypot(...a) || 1;
  return 2 * Math.hypot(...a.map((value, i) => value / length - b[i]!));
}
