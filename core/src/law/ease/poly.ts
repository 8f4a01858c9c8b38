import type { Law } from '../law';

/** τⁿ, as d3-ease's poly with a whole exponent. */
export function poly(n: number): Law {
  return {
    value: (tau) => power(tau, n),
    rates: (tau) => [
      power(tau, n),
      n * power(tau, n - 1),
      n * (n - 1) * power(tau, n - 2),
      n * (n - 1) * (n - 2) * power(tau, n - 3),
    ],
    breaks: [],
  };
}

/** By multiplication, which every engine rounds alike; 0 for a negative exponent, where the factor before it is 0 too. */
function power(tau: number, exponent: number): number {
  if (exponent < 0) return 0;
  let product = 1;
  for (let i = 0; i < exponent; i++) product *= tau;
  return product;
}
