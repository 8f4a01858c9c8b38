import { constantJet, scaleJet } from '../../law';
import { DEGREES, type Linkage } from './linkage';

/** A wheel rolling without slip: angle = direction·deg(distance/radius). */
export const wheel: Linkage = {
  inputs: ['distance'],
  outputs: ['angle'],
  required: ['radius'],
  defaults: { direction: 1 },
  refuse: ({ radius = 0, direction }) => {
    if (!(radius > 0)) return `radius is ${radius}; it must be more than 0`;
    return direction === 1 || direction === -1 ? null : `direction is ${direction}; it must be 1 or -1`;
  },
  make: ({ radius = 1, direction = 1 }) => ({
    value: (inputs) => direction * ((inputs[0]! / radius) * DEGREES),
    jet: ([distance = constantJet(0)]) => scaleJet(distance, (direction * DEGREES) / radius),
  }),
};
