import { multiplyJets } from '../jet';
import type { Law } from '../law';
import { halvings, HALVING_RATE, HALVING_SCALE } from './exp';

/** A swing that grows by halvings: a·tpmt(1 − τ)·sin((s + 1 − τ)/p), amplitude at least 1, period in τ (d3-ease). */
export function elastic(amplitude: number, period: number): Law {
  const a = Math.max(1, amplitude);
  const p = period / (2 * Math.PI);
  const s = Math.asin(1 / a) * p;
  return {
    value: (tau) => a * halvings(1 - tau) * Math.sin((s + 1 - tau) / p),
    rates: (tau) => {
      const growth = a * Math.pow(2, -10 * (1 - tau)) * HALVING_SCALE;
      const phase = (s + 1 - tau) / p;
      const sin = Math.sin(phase);
      const cos = Math.cos(phase);
      return multiplyJets(
        [
          a * halvings(1 - tau),
          HALVING_RATE * growth,
          HALVING_RATE ** 2 * growth,
          HALVING_RATE ** 3 * growth,
        ],
        [sin, -cos / p, -sin / p ** 2, cos / p ** 3],
      );
    },
    breaks: [],
  };
}
