import type { Law } from '../law';

const QUARTER = Math.PI / 2;

/** 1 − cos(πτ/2). */
export const sine: Law = {
  value: (tau) => (tau === 1 ? 1 : 1 - Math.cos(tau * QUARTER)),
  rates: (tau) => [
    tau === 1 ? 1 : 1 - Math.cos(tau * QUARTER),
    QUARTER * Math.sin(tau * QUARTER),
    QUARTER ** 2 * Math.cos(tau * QUARTER),
    -(QUARTER ** 3) * Math.sin(tau * QUARTER),
  ],
  breaks: [],
};
