/** Why a driver or a constraint has no result at a frame; 0 where it has one. */
export const FAILURES = [
  '',
  'the result is not finite',
  'out of reach: too far',
  'out of reach: too near',
  'the direction is lost: two places fall together, or an axis has no length',
  'this loop never settles: an undamped spring in step with it',
] as const;
export const NOT_FINITE = 1;
export const TOO_FAR = 2;
export const TOO_NEAR = 3;
export const NO_DIRECTION = 4;
export const NEVER_SETTLES = 5;
