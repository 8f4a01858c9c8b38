import { number, oneOf, otherwise, partId, SIGNED_AXES, type AimConstraint } from '../../project';
import { placeOf } from '../place';
import { aimAlong, alongOneLine } from './aimed';
import type { ConstraintKind } from './constraint';
import { LAG, laggedPlace } from './lagged';

/** An axis of the part points from its pivot to the target's, up as near to the world's +Y as it can. */
export const aim: ConstraintKind<AimConstraint> = {
  says: 'aims at {target}',
  fields: {
    target: partId(),
    axis: otherwise(oneOf(...SIGNED_AXES), '-z'),
    up: otherwise(oneOf(...SIGNED_AXES), 'y'),
    weight: otherwise(number(), 1),
    lag: LAG,
  },
  example: { target: 'skip' },
  edition: ({ lag }) => lag !== null,
  refuse: alongOneLine,
  make: (constraint, context) => {
    const own = new Float64Array(3);
    const place = new Float64Array(3);
    const target = context.part(constraint.target);
    const pivot = context.pivot(target);
    const { lag } = constraint;
    return {
      parts: [target],
      late: lag ? [target] : [],
      apply: (held, read) => {
        const lost = laggedPlace(place, read, target, pivot, constraint);
        placeOf(own, held.world, held.pivot);
        const failed = aimAlong(
          held,
          place[0]! - own[0]!,
          place[1]! - own[1]!,
          place[2]! - own[2]!,
          constraint,
        );
        return failed || lost;
      },
    };
  },
};
