import { pieceAt, type Jet, type Law } from '../law';

const PI = Math.PI;
const W = 4 * PI;
const A = (8 * PI) / (2 + PI);
const BREAKS = [1 / 8, 3 / 8, 5 / 8, 7 / 8];

/** Speed and place at the start of each piece, carried on from the one before. */
const SPEEDS: number[] = [0];
const PLACES: number[] = [0];
for (let piece = 0; piece < BREAKS.length; piece++) {
  const [place, speed] = pieceRates(piece, (BREAKS[piece] ?? 1) - (BREAKS[piece - 1] ?? 0));
  PLACES.push(place);
  SPEEDS.push(speed);
}

/** Within a piece at `x` past its start: acceleration A·sin, A, A·cos, −A, −A·cos, integrated twice. */
function pieceRates(piece: number, x: number): Jet {
  const v = SPEEDS[piece] ?? 0;
  const s = (PLACES[piece] ?? 0) + v * x;
  const sin = Math.sin(W * x);
  const cos = Math.cos(W * x);
  switch (piece) {
    case 0:
      return [s + (A / W) * (x - sin / W), v + (A / W) * (1 - cos), A * sin, A * W * cos];
    case 1:
      return [s + (A * x * x) / 2, v + A * x, A, 0];
    case 2:
      return [s + (A / W ** 2) * (1 - cos), v + (A / W) * sin, A * cos, -A * W * sin];
    case 3:
      return [s - (A * x * x) / 2, v - A * x, -A, 0];
    default:
      return [s - (A / W ** 2) * (1 - cos), v - (A / W) * sin, -A * cos, A * W * sin];
  }
}

function rates(tau: number, left = false): Jet {
  const piece = pieceAt(tau, BREAKS, left);
  return pieceRates(piece, tau - (BREAKS[piece - 1] ?? 0));
}

/** Modified trapezoid, peak acceleration 8π/(2+π) = 4.888. */
export const modifiedTrapezoid: Law = { value: (tau) => rates(tau)[0], rates, breaks: BREAKS };
