import { NO_DIRECTION, oneOf, orNull, otherwise, partId, SIGNED_AXES, type DistanceDriver } from '../project';
import { axisOf, placeOf } from '../rig';
import type { DriverKind, Reader } from './driver';

/** Metres between two pivots, or how far one lies along an axis of the other. */
export const distanceDriver: DriverKind<DistanceDriver> = {
  says: 'measures how far one part is from another',
  fields: {
    of: partId(),
    to: partId(),
    axis: otherwise(orNull(oneOf(...SIGNED_AXES)), null),
  },
  example: { of: 'boom', to: 'skip', axis: null },
  edition: () => true,
  make: (driver, context) => {
    const of = context.part(driver.of);
    const to = context.part(driver.to);
    const ofPivot = context.pivot(of);
    const toPivot = context.pivot(to);
    const a = new Float64Array(3);
    const b = new Float64Array(3);
    const { axis } = driver;
    const value = (read: Reader): number => {
      placeOf(a, read.worldOf(of), ofPivot);
      placeOf(b, read.worldOf(to), toPivot);
      const x = b[0]! - a[0]!;
      const y = b[1]! - a[1]!;
      const z = b[2]! - a[2]!;
      if (axis === null) return Math.hypot(x, y, z);
      if (!axisOf(a, read.worldOf(of), axis)) return Number.NaN;
      return x * a[0]! + y * a[1]! + z * a[2]!;
    };
    return {
      parts: [of, to],
      value,
      jet: (read) => read.differences(value),
      reason: () => NO_DIRECTION,
    };
  },
};
