import type { EaseSlow } from '../../project';
import { rescaled, type Law } from '../law';

/** Turns a law that is slow at the start into one slow at the end (its point mirror) or at both (two halves). */
export function slowAt(start: Law, slow: EaseSlow): Law {
  if (slow === 'start') return start;
  const end: Law = {
    value: (tau) => 1 - start.value(1 - tau),
    rates: (tau, left) => {
      const jet = rescaled(start.rates(1 - tau, !left), -1, -1);
      return [1 + jet[0], jet[1], jet[2], jet[3]];
    },
    breaks: start.breaks.map((at) => 1 - at).reverse(),
  };
  if (slow === 'end') return end;
  return {
    value: (tau) => (tau < 0.5 ? start.value(2 * tau) / 2 : 1 - start.value(2 - 2 * tau) / 2),
    rates: (tau, left) => {
      if (left ? tau <= 0.5 : tau < 0.5) return rescaled(start.rates(2 * tau, left), 0.5, 2);
      const jet = rescaled(end.rates(2 * tau - 1, left), 0.5, 2);
      return [0.5 + jet[0], jet[1], jet[2], jet[3]];
    },
    breaks: [...start.breaks.map((at) => at / 2), 0.5, ...end.breaks.map((at) => 0.5 + at / 2)],
  };
}
