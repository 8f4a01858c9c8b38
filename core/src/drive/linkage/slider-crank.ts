import {
  addJets,
  atan2Jet,
  constantJet,
  cosJet,
  multiplyJets,
  scaleJet,
  sinJet,
  sqrtJet,
  subtractJets,
} from '../../law';
import { DEGREES, RADIANS, type Linkage } from './linkage';

/**
 * Slider-crank: crank pin at (r cos θ, r sin θ), slide at r cos θ + √(l² − (e − r sin θ)²) on the line y = e.
 * `rod` is the direction from the pin to the slide; it leans less than 90°, so it never wraps.
 */
export const sliderCrank: Linkage = {
  inputs: ['angle'],
  outputs: ['slide', 'rod'],
  required: ['crank', 'rod'],
  defaults: { offset: 0 },
  refuse: ({ crank = 0, rod = 0 }) => {
    if (!(crank > 0)) return `crank is ${crank}; it must be more than 0`;
    return rod > 0 ? null : `rod is ${rod}; it must be more than 0`;
  },
  make: ({ crank: r = 1, rod: l = 1, offset: e = 0 }, output) => ({
    value: (inputs) => {
      const angle = inputs[0]! * RADIANS;
      const rise = e - r * Math.sin(angle);
      const along = Math.sqrt(l * l - rise * rise);
      return output === 'slide' ? r * Math.cos(angle) + along : Math.atan2(rise, along) * DEGREES;
    },
    jet: ([input = constantJet(0)]) => {
      const angle = scaleJet(input, RADIANS);
      const rise = subtractJets(constantJet(e), scaleJet(sinJet(angle), r));
      const along = sqrtJet(subtractJets(constantJet(l * l), multiplyJets(rise, rise)));
      if (output === 'slide') return addJets(scaleJet(cosJet(angle), r), along);
      return scaleJet(atan2Jet(rise, along), DEGREES);
    },
  }),
};
