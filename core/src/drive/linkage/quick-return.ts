import { positive } from '../../project';
import { addJets, atan2Jet, constantJet, cosDeg, cosSinDegJets, DEGREES, scaleJet, sinDeg } from '../../law';
import { linkage } from './linkage';

/** A slotted arm pivoted d below a crank's centre: atan2(r cos θ, d + r sin θ), from upright, positive towards +x. */
export const quickReturn = linkage<{ crank: number; distance: number }>('quick-return', {
  inputs: ['angle'],
  outputs: ['arm'],
  params: { crank: positive('m'), distance: positive('m') },
  refuse: ({ crank, distance }) =>
    distance > crank
      ? null
      : `distance is ${distance} and crank ${crank}; distance must be more than the crank`,
  make: ({ crank: r, distance: d }) => ({
    solve: ([angle], out, at) => {
      out[at] = Math.atan2(r * cosDeg(angle!), d + r * sinDeg(angle!)) * DEGREES;
      return 0;
    },
    jets: ([angle]) => {
      const [cos, sin] = cosSinDegJets(angle!);
      return [scaleJet(atan2Jet(scaleJet(cos, r), addJets(constantJet(d), scaleJet(sin, r))), DEGREES)];
    },
  }),
});
