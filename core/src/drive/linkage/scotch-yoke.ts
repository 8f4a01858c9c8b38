import { positive } from '../../project';
import { cosDeg, cosSinDegJets, scaleJet } from '../../law';
import { linkage } from './linkage';

/** A pin in a slotted yoke: r cos θ. */
export const scotchYoke = linkage<{ crank: number }>('scotch-yoke', {
  inputs: ['angle'],
  outputs: ['slide'],
  params: { crank: positive('m') },
  make: ({ crank: r }) => ({
    solve: ([angle], out, at) => {
      out[at] = r * cosDeg(angle!);
      return 0;
    },
    jets: ([angle]) => [scaleJet(cosSinDegJets(angle!)[0], r)],
  }),
});
