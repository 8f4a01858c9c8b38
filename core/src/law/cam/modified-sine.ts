import { pieceAt, type Jet, type Law } from '../law';

const PI = Math.PI;
const C = 1 / (4 + PI);
const BREAKS = [1 / 8, 7 / 8];

/** Modified sine: a quick sine at the ends, a slow one between; peak acceleration 5.528. */
function rates(tau: number, left = false): Jet {
  const piece = pieceAt(tau, BREAKS, left);
  if (piece === 1) {
    const w = (4 * PI) / 3;
    const phase = (4 * PI * tau + PI) / 3;
    const s = Math.sin(phase);
    const c = Math.cos(phase);
    const k = 9 / 4;
    return [C * (2 + PI * tau - k * s), C * (PI - k * w * c), C * k * w * w * s, C * k * w ** 3 * c];
  }
  const w = 4 * PI;
  const s = Math.sin(w * tau);
  const c = Math.cos(w * tau);
  const lift = piece === 0 ? 0 : 4;
  return [C * (lift + PI * tau - s / 4), C * (PI - PI * c), (C * w * w * s) / 4, (C * w ** 3 * c) / 4];
}

export const modifiedSine: Law = { value: (tau) => rates(tau)[0], rates, breaks: BREAKS };
