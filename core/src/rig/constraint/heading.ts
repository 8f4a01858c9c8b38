import {
  frames,
  number,
  oneOf,
  otherwise,
  SIGNED_AXES,
  type HeadingConstraint,
  type Vec3,
} from '../../project';
import { placeOf } from '../place';
import { aimAlong, alongOneLine } from './aimed';
import type { ConstraintKind, PoseReader } from './constraint';

/** Going less far than this in a span counts as standing. */
const LEAST_WAY = 1e-6;
/** Ways at whole frames that are kept; more are found anew. */
const MOST_WAYS = 100_000;

/** The part points where its pivot goes; where it stands, as it went last, or as it will go first. */
export const heading: ConstraintKind<HeadingConstraint> = {
  says: 'looks where it goes',
  fields: {
    axis: otherwise(oneOf(...SIGNED_AXES), '-z'),
    up: otherwise(oneOf(...SIGNED_AXES), 'y'),
    weight: otherwise(number(), 1),
    span: otherwise({ ...frames({ exclusiveMinimum: 0 }) }, 2),
  },
  example: { axis: 'x', span: 2 },
  edition: () => true,
  refuse: alongOneLine,
  make: (constraint, context) => {
    const matrix = new Float64Array(16);
    const before = new Float64Array(3);
    const after = new Float64Array(3);
    const { span } = constraint;
    const { start, end } = context.range;
    const wayAt = (read: PoseReader, place: number, frame: number, pivot: Vec3): Vec3 => {
      read.ownAt(place, frame - span / 2, matrix);
      placeOf(before, matrix, pivot);
      read.ownAt(place, frame + span / 2, matrix);
      placeOf(after, matrix, pivot);
      return [after[0]! - before[0]!, after[1]! - before[1]!, after[2]! - before[2]!];
    };
    return {
      apply: (held, read, place) => {
        const way = wayAt(read, place, read.frame, held.pivot);
        if (Math.hypot(...way) >= LEAST_WAY) return aimAlong(held, ...way, constraint);
        const ways = read.kept(constraint, () => new Map<number, Vec3>());
        const wholeWay = (frame: number): Vec3 => {
          let known = ways.get(frame);
          if (!known) {
            if (ways.size > MOST_WAYS) ways.clear();
            ways.set(frame, (known = wayAt(read, place, frame, held.pivot)));
          }
          return known;
        };
        for (let frame = Math.floor(read.frame); frame >= start; frame--) {
          const last = wholeWay(frame);
          if (Math.hypot(...last) >= LEAST_WAY) return aimAlong(held, ...last, constraint);
        }
        for (let frame = Math.ceil(read.frame); frame <= end; frame++) {
          const first = wholeWay(frame);
          if (Math.hypot(...first) >= LEAST_WAY) return aimAlong(held, ...first, constraint);
        }
        return 0;
      },
    };
  },
};
