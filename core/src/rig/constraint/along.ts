import { channel, flag, NOT_FINITE, otherwise, partId, type AlongConstraint } from '../../project';
import { ArcCurve } from '../arc-curve';
import { placeOf } from '../place';
import { aimedFrame, takeFrame } from './aimed';
import type { ConstraintKind } from './constraint';
import { shift } from './move';

/** The pivot goes to an arc length along a path; with `orient` its +Z looks along it, its +Y up. */
export const along: ConstraintKind<AlongConstraint> = {
  says: 'goes along {path}',
  fields: { path: partId('path'), distance: channel(), orient: otherwise(flag(), true) },
  example: { path: 'track', distance: 'wagon/custom.way' },
  make: (constraint, context) => {
    const point = new Float64Array(3);
    const tangent = new Float64Array(3);
    const place = new Float64Array(3);
    const own = new Float64Array(3);
    const frame = new Float64Array(9);
    const path = context.part(constraint.path);
    const slot = context.slot(constraint.distance);
    const shape = context.points(path);
    if (!shape)
      return { at: ['path'], message: `"${constraint.path}" is no path; it must be a part of kind path` };
    const curve = new ArcCurve(shape.points, shape.closed);
    return {
      parts: [path],
      slots: [slot],
      apply: (held, read) => {
        curve.at(read.channel(slot), point, tangent);
        const world = read.worldOf(path);
        placeOf(place, world, [point[0]!, point[1]!, point[2]!]);
        if (!place.every(Number.isFinite)) return NOT_FINITE;
        let failed = 0;
        if (constraint.orient) {
          const along = (row: number) =>
            world[row]! * tangent[0]! + world[4 + row]! * tangent[1]! + world[8 + row]! * tangent[2]!;
          failed = aimedFrame(frame, along(0), along(1), along(2), 'z', 'y')
            ? takeFrame(held, frame, 1)
            : NOT_FINITE;
        }
        placeOf(own, held.world, held.pivot);
        shift(held, place[0]! - own[0]!, place[1]! - own[1]!, place[2]! - own[2]!);
        return failed;
      },
    };
  },
};
