import type { Law } from '../law';

const TURN = 2 * Math.PI;

/** Cycloidal: τ − sin(2πτ)/2π. */
export const cycloidal: Law = {
  value: (tau) => tau - Math.sin(TURN * tau) / TURN,
  rates: (tau) => {
    const s = Math.sin(TURN * tau);
    const c = Math.cos(TURN * tau);
    return [tau - s / TURN, 1 - c, TURN * s, TURN * TURN * c];
  },
  breaks: [],
};
