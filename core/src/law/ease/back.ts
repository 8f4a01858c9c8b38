import type { Law } from '../law';

/** τ²((s + 1)τ − s): draws back by an amount that `overshoot` s sets (1.70158: a tenth). */
export function back(overshoot: number): Law {
  const s = overshoot;
  return {
    value: (tau) => tau * tau * (s * (tau - 1) + tau),
    rates: (tau) => [
      tau * tau * (s * (tau - 1) + tau),
      tau * (3 * (s + 1) * tau - 2 * s),
      6 * (s + 1) * tau - 2 * s,
      6 * (s + 1),
    ],
    breaks: [],
  };
}
