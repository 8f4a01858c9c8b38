import { pieceAt, type Jet, type Law } from '../law';

/** Four parabolas of one curvature, slow at the start: the mirror of d3-ease's bounceOut. */
const CURVATURE = 7.5625;
const CONTACTS = [4 / 11, 8 / 11, 10 / 11];
const CENTRES = [0, 6 / 11, 9 / 11, 21 / 22];
const LIFTS = [0, 3 / 4, 15 / 16, 63 / 64];

function falling(x: number, left: boolean): Jet {
  const piece = pieceAt(x, CONTACTS, left);
  const d = x - (CENTRES[piece] ?? 0);
  return [CURVATURE * d * d + (LIFTS[piece] ?? 0), 2 * CURVATURE * d, 2 * CURVATURE, 0];
}

export const bounce: Law = {
  value: (tau) => 1 - falling(1 - tau, false)[0],
  rates: (tau, left = false) => {
    const [v, d1, d2] = falling(1 - tau, !left);
    return [1 - v, d1, -d2, 0];
  },
  breaks: CONTACTS.map((at) => 1 - at).reverse(),
};
