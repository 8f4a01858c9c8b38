import type { Law } from '../law';

/** 1 − √(1 − τ²): vertical at τ = 1, where the derivatives are not finite. */
export const circle: Law = {
  value: (tau) => 1 - Math.sqrt(1 - tau * tau),
  rates: (tau) => {
    const w = 1 - tau * tau;
    const s = Math.sqrt(w);
    return [1 - s, tau / s, 1 / (w * s), (3 * tau) / (w * w * s)];
  },
  breaks: [],
};
