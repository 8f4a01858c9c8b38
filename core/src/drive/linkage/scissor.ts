import { positive, TOO_FAR, whole } from '../../project';
import { constantJet, multiplyJets, scaleJet, sqrtJet, subtractJets } from '../../law';
import { linkage } from './linkage';

/** A scissor lift of n stages: n·√(l² − width²). */
export const scissor = linkage<{ link: number; stages: number }>('scissor', {
  inputs: ['width'],
  outputs: ['height'],
  params: { link: positive('m'), stages: whole({ minimum: 1 }) },
  make: ({ link: l, stages }) => ({
    solve: ([width], out, at) => {
      const square = l * l - width! * width!;
      out[at] = stages * Math.sqrt(square);
      return square >= 0 ? 0 : TOO_FAR;
    },
    jets: ([width]) => [
      scaleJet(sqrtJet(subtractJets(constantJet(l * l), multiplyJets(width!, width!))), stages),
    ],
  }),
});
