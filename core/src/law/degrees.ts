import { composeJet, scaleJet } from './jet';
import type { Jet } from './law';

export const RADIANS = Math.PI / 180;
export const DEGREES = 180 / Math.PI;

/** The cosine of degrees, exact at quarter turns. */
export function cosDeg(angle: number): number {
  const turn = angle % 360;
  if (turn % 90 === 0) return turn === 0 ? 1 : Math.abs(turn) === 180 ? -1 : 0;
  return Math.cos(turn * RADIANS);
}

/** The sine of degrees, exact at quarter turns. */
export function sinDeg(angle: number): number {
  const turn = angle % 360;
  if (turn % 180 === 0) return 0;
  if (turn % 90 === 0) return turn === 90 || turn === -270 ? 1 : -1;
  return Math.sin(turn * RADIANS);
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
