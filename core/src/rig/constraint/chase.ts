import { number, numbers, otherwise, partId, text, type ChaseConstraint } from '../../project';
import { placeOf } from '../place';
import type { ConstraintKind } from './constraint';
import { LAG, laggedPlace } from './lagged';
import { shift } from './move';

/** In some axes of the world the pivot goes where the target's is, with an offset; the orientation stays. */
export const chase: ConstraintKind<ChaseConstraint> = {
  says: 'goes with {target}',
  fields: {
    target: partId(),
    offset: otherwise(numbers(3), [0, 0, 0]),
    axes: otherwise(text(), 'xyz'),
    weight: otherwise(number(), 1),
    lag: LAG,
  },
  example: { target: 'skip', offset: [0, 2, 6], axes: 'xz', lag: { frequency: 1.5, damping: 1 } },
  edition: () => true,
  refuse: ({ axes }) =>
    /^[xyz]{1,3}$/.test(axes) && new Set(axes).size === axes.length
      ? null
      : {
          at: ['axes'],
          message: `"${axes}" stands here; it must be some of the letters x, y and z, each once`,
        },
  make: (constraint, context) => {
    const own = new Float64Array(3);
    const place = new Float64Array(3);
    const target = context.part(constraint.target);
    const pivot = context.pivot(target);
    const { lag, weight, offset } = constraint;
    const shares = ['x', 'y', 'z'].map((axis) => (constraint.axes.includes(axis) ? weight : 0));
    return {
      parts: [target],
      late: lag ? [target] : [],
      apply: (held, read) => {
        const lost = laggedPlace(place, read, target, pivot, constraint);
        placeOf(own, held.world, held.pivot);
        const by = (row: number) => shares[row]! * (place[row]! + offset[row]! - own[row]!);
        shift(held, by(0), by(1), by(2));
        return lost;
      },
    };
  },
};
