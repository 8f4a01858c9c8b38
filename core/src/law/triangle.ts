/** A side past what a triangle can have by less than this share counts as rounding: the triangle is flat there. */
const ROUNDING = 1e-12;

/**
 * The corner of a triangle between two sides, in radians, from the three sides' lengths; NaN where there is no such triangle. By
 * its half's tangent (Kahan, Miscalculating Area and Angles of a Needle-like Triangle), which keeps its digits where the triangle
 * is nearly flat.
 */
export function cornerBetween(p: number, q: number, opposite: number): number {
  const size = ROUNDING * (p + q);
  const folded = slack((opposite - p + q) * (opposite + p - q), size * opposite);
  const straight = slack((p + q - opposite) * (p + q + opposite), size * (p + q));
  return 2 * Math.atan2(Math.sqrt(folded), Math.sqrt(straight));
}

function slack(value: number, rounding: number): number {
  return value < 0 && value >= -rounding ? 0 : value;
}
