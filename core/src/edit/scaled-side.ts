import type { Side } from '../project';

/** A side whose set slope is multiplied; other sides find their slopes by themselves. */
export function scaledSide(side: Side, factor: number): Side {
  return side.mode === 'set' && side.slope !== 0 && factor !== 1
    ? { ...side, slope: side.slope * factor }
    : side;
}
