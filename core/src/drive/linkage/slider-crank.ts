import { number, otherwise, positive, TOO_FAR } from '../../project';
import {
  addJets,
  atan2Jet,
  constantJet,
  cosDeg,
  cosSinDegJets,
  DEGREES,
  multiplyJets,
  scaleJet,
  sinDeg,
  sqrtJet,
  subtractJets,
} from '../../law';
import { linkage } from './linkage';

/**
 * Slider-crank: crank pin at (r cos θ, r sin θ), slide at r cos θ + √(l² − (e − r sin θ)²) on the line y = e.
 * `rod` is the direction from the pin to the slide; it leans less than 90°, so it never wraps.
 */
export const sliderCrank = linkage<{ crank: number; rod: number; offset: number }>('slider-crank', {
  inputs: ['angle'],
  outputs: ['slide', 'rod'],
  params: { crank: positive('m'), rod: positive('m'), offset: otherwise(number({ unit: 'm' }), 0) },
  make: ({ crank: r, rod: l, offset: e }) => ({
    solve: ([angle], out, at) => {
      const rise = e - r * sinDeg(angle!);
      const along = Math.sqrt(l * l - rise * rise);
      out[at] = r * cosDeg(angle!) + along;
      out[at + 1] = Math.atan2(rise, along) * DEGREES;
      return along >= 0 ? 0 : TOO_FAR;
    },
    jets: ([angle]) => {
      const [cos, sin] = cosSinDegJets(angle!);
      const rise = subtractJets(constantJet(e), scaleJet(sin, r));
      const along = sqrtJet(subtractJets(constantJet(l * l), multiplyJets(rise, rise)));
      return [addJets(scaleJet(cos, r), along), scaleJet(atan2Jet(rise, along), DEGREES)];
    },
  }),
});
