import type { Law } from '../law';

const PI = Math.PI;

/** Simple harmonic: (1 − cos πτ)/2. */
export const harmonic: Law = {
  value: (tau) => (1 - Math.cos(PI * tau)) / 2,
  rates: (tau) => {
    const s = Math.sin(PI * tau);
    const c = Math.cos(PI * tau);
    return [(1 - c) / 2, (PI * s) / 2, (PI * PI * c) / 2, (-(PI ** 3) * s) / 2];
  },
  breaks: [],
};
