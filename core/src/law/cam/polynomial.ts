import type { Law } from '../law';

/** A polynomial law from its coefficients, constant term first. */
function polynomial(coefficients: readonly number[]): Law {
  const derivative = (list: readonly number[]) => list.slice(1).map((c, i) => c * (i + 1));
  const first = derivative(coefficients);
  const second = derivative(first);
  const third = derivative(second);
  const at = (list: readonly number[], x: number) => list.reduceRight((sum, c) => sum * x + c, 0);
  return {
    value: (tau) => at(coefficients, tau),
    rates: (tau) => [at(coefficients, tau), at(first, tau), at(second, tau), at(third, tau)],
    breaks: [],
  };
}

/** 10τ³ − 15τ⁴ + 6τ⁵: speed and acceleration zero at both ends. */
export const poly345 = polynomial([0, 0, 0, 10, -15, 6]);
/** 35τ⁴ − 84τ⁵ + 70τ⁶ − 20τ⁷: jerk zero at both ends too. */
export const poly4567 = polynomial([0, 0, 0, 0, 35, -84, 70, -20]);
