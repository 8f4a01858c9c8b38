import type { Side } from '../../project';

/** A side with its slope the other way: what time reversed and values mirrored make of it. */
export function turnedSide(side: Side): Side {
  return side.slope === 0 ? side : { ...side, slope: -side.slope };
}
