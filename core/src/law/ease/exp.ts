import type { Law } from '../law';

const RATE = 10 * Math.LN2;

/** 2^(−10x) shifted and stretched so that it runs from exactly 1 at x = 0 to exactly 0 at x = 1 (d3-ease's tpmt). */
export function halvings(x: number): number {
  return (Math.pow(2, -10 * x) - 0.0009765625) * HALVING_SCALE;
}
export const HALVING_SCALE = 1.0009775171065494;
export const HALVING_RATE = RATE;

/** Exponential, slow at the start: halvings(1 − τ). */
export const exp: Law = {
  value: (tau) => halvings(1 - tau),
  rates: (tau) => {
    const growth = Math.pow(2, -10 * (1 - tau)) * HALVING_SCALE;
    return [halvings(1 - tau), RATE * growth, RATE ** 2 * growth, RATE ** 3 * growth];
  },
  breaks: [],
};
