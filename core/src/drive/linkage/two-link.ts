import { oneOf, otherwise, positive, TOO_FAR, TOO_NEAR } from '../../project';
import {
  acosJet,
  addJets,
  atan2Jet,
  constantJet,
  cornerBetween,
  cosSinDegJets,
  DEGREES,
  multiplyJets,
  scaleJet,
  subtractJets,
  wrapDeg,
} from '../../law';
import { linkage } from './linkage';

/** An arm of two links with its tip at (x, y): the shoulder's angle, and the elbow's relative to the upper link. */
export const twoLink = linkage<{ upper: number; lower: number; bend: number }>('two-link', {
  inputs: ['x', 'y'],
  outputs: ['shoulder', 'elbow'],
  params: { upper: positive('m'), lower: positive('m'), bend: otherwise(oneOf(1, -1), 1) },
  make: ({ upper: u, lower: l, bend }) => ({
    solve: ([x, y], out, at) => {
      const far = Math.hypot(x!, y!);
      const elbow = bend * (Math.PI - cornerBetween(u, l, far));
      const shoulder = Math.atan2(y!, x!) - Math.atan2(l * Math.sin(elbow), u + l * Math.cos(elbow));
      out[at] = wrapDeg(shoulder * DEGREES);
      out[at + 1] = elbow * DEGREES;
      if (Number.isFinite(elbow)) return 0;
      return far > u + l ? TOO_FAR : TOO_NEAR;
    },
    jets: ([x, y]) => {
      const square = addJets(multiplyJets(x!, x!), multiplyJets(y!, y!));
      const cosine = scaleJet(subtractJets(square, constantJet(u * u + l * l)), 1 / (2 * u * l));
      const elbow = scaleJet(
        acosJet([withinOne(cosine[0]), cosine[1], cosine[2], cosine[3]]),
        bend * DEGREES,
      );
      const [c, s] = cosSinDegJets(elbow);
      const lean = atan2Jet(scaleJet(s, l), addJets(constantJet(u), scaleJet(c, l)));
      const shoulder = scaleJet(subtractJets(atan2Jet(y!, x!), lean), DEGREES);
      return [[wrapDeg(shoulder[0]), shoulder[1], shoulder[2], shoulder[3]], elbow];
    },
  }),
});

/** A cosine that rounding took past 1 counts as 1: the arm is straight there, not out of reach. */
export function withinOne(cosine: number): number {
  if (cosine > 1) return cosine < 1 + 1e-12 ? 1 : cosine;
  return cosine < -1 && cosine > -1 - 1e-12 ? -1 : cosine;
}
