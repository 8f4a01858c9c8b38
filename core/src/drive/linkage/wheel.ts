import { oneOf, otherwise, positive } from '../../project';
import { DEGREES } from '../../law';
import { linkage, proportional } from './linkage';

/** A wheel rolling without slip: angle = direction·deg(distance/radius). */
export const wheel = linkage<{ radius: number; direction: number }>('wheel', {
  inputs: ['distance'],
  outputs: ['angle'],
  params: { radius: positive('m'), direction: otherwise(oneOf(1, -1), 1) },
  make: ({ radius, direction }) => {
    const { jets } = proportional((direction * DEGREES) / radius);
    return {
      solve: (inputs, out, at) => {
        out[at] = direction * ((inputs[0]! / radius) * DEGREES);
        return 0;
      },
      jets,
    };
  },
});
