/** Angles of a file in single precision are off by about this, in degrees. */
const ROUNDED = 1e-5;

/** An angle that is a rounding error away from a ten-thousandth of a degree is put on it. */
export function tidyAngle(angle: number): number {
  const near = Math.round(angle * 1e4) / 1e4;
  return Math.abs(near - angle) < ROUNDED ? near + 0 : angle;
}

/** Whether angles differ by no more than what rounding makes of one angle. */
export function isOneAngle(angles: readonly number[]): boolean {
  return angles.every((angle) => Math.abs(angle - angles[0]!) < 2 * ROUNDED);
}
