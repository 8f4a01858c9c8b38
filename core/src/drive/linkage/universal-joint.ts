import { number } from '../../project';
import { addJets, atan2Jet, cosDeg, cosSinDegJets, DEGREES, multiplyJets, scaleJet, sinDeg } from '../../law';
import { linkage } from './linkage';

/** Two shafts that meet at an angle β: tan φ = tan θ / cos β; φ is θ and an advance that stays within a quarter turn. */
export const universalJoint = linkage<{ bend: number }>('universal-joint', {
  inputs: ['angle'],
  outputs: ['angle'],
  params: { bend: number({ unit: '°' }) },
  refuse: ({ bend }) =>
    Math.abs(bend) < 90 ? null : `bend is ${bend}; it must be between -90 and 90 degrees`,
  make: ({ bend }) => {
    const stretch = 1 / cosDeg(bend);
    return {
      solve: ([angle], out, at) => {
        const c = cosDeg(angle!);
        const s = sinDeg(angle!);
        out[at] = angle! + Math.atan2((stretch - 1) * s * c, c * c + stretch * s * s) * DEGREES;
        return 0;
      },
      jets: ([angle]) => {
        const [c, s] = cosSinDegJets(angle!);
        const across = scaleJet(multiplyJets(s, c), stretch - 1);
        const along = addJets(multiplyJets(c, c), scaleJet(multiplyJets(s, s), stretch));
        return [addJets(angle!, scaleJet(atan2Jet(across, along), DEGREES))];
      },
    };
  },
});
