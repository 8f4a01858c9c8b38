import { composeJet, scaleJet } from './jet';
import type { Jet } from './law';

export const RADIANS = Math.PI / 180;
export const DEGREES = 180 / Math.PI;

/** An angle with whole turns taken off where it has some: quicker than always, and the same. */
function withinTurn(angle: number): number {
  return angle < 360 && angle > -360 ? angle : angle % 360;
}

/** The cosine of degrees, exact at quarter turns. */
export function cosDeg(angle: number): number {
  const turn = withinTurn(angle);
  const quarters = turn / 90;
  if (quarters !== Math.floor(quarters)) return Math.cos(turn * RADIANS);
  return quarters === 0 ? 1 : quarters === 2 || quarters === -2 ? -1 : 0;
}

/** The sine of degrees, exact at quarter turns. */
export function sinDeg(angle: number): number {
  const turn = withinTurn(angle);
  const quarters = turn / 90;
  if (quarters !== Math.floor(quarters)) return Math.sin(turn * RADIANS);
  if (quarters === 1 || quarters === -3) return 1;
  return quarters === -1 || quarters === 3 ? -1 : 0;
}

/** The jets of the cosine and the sine of degrees. */
export function cosSinDegJets(angle: Jet): readonly [Jet, Jet] {
  const c = cosDeg(angle[0]);
  const s = sinDeg(angle[0]);
  const x = scaleJet(angle, RADIANS);
  return [composeJet([c, -s, -c, s], x), composeJet([s, c, -s, -c], x)];
}

/** The angle taken into (−180, 180]. */
export function wrapDeg(angle: number): number {
  const turn = angle - 360 * Math.ceil((angle - 180) / 360);
  return turn <= -180 ? turn + 360 : turn;
}
