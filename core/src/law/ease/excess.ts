import type { EaseLeg } from '../../project';
import { easeLaw } from './index';

const SAMPLES = 1024;
/** Bounds of the schema on what sets how far an ease goes. */
const MOST_OVERSHOOT = 100;
const MOST_AMPLITUDE = 100;

/**
 * How far an ease goes past its ends, as a share of its rise: 0.1 is a tenth, which is what a back with an overshoot of 1.70158 has. 0 for
 * families that stay between their ends. For a back slow at one end it is 4s³/(27(s + 1)²) (the extremum of τ²((s + 1)τ − s)).
 */
export function easeExcess(leg: EaseLeg): number {
  const { value } = easeLaw(leg);
  const past = (tau: number) => Math.max(-value(tau), value(tau) - 1);
  let best = 0;
  for (let i = 1; i < SAMPLES; i++) if (past(i / SAMPLES) > past(best / SAMPLES)) best = i;
  let [low, high] = [(best - 1) / SAMPLES, (best + 1) / SAMPLES];
  for (let i = 0; i < 60; i++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (past(a) < past(b)) low = a;
    else high = b;
  }
  return best === 0 ? 0 : Math.max(0, past((low + high) / 2));
}

/** A back or elastic ease that goes past its ends by a share of its rise, as near as its parameter allows; others stay as they are. */
export function withExcess(leg: EaseLeg, share: number): EaseLeg {
  if (leg.family === 'back')
    return { ...leg, overshoot: solve((overshoot) => ({ ...leg, overshoot }), share, 0, MOST_OVERSHOOT) };
  if (leg.family !== 'elastic') return leg;
  return { ...leg, amplitude: solve((amplitude) => ({ ...leg, amplitude }), share, 1, MOST_AMPLITUDE) };
}

/** The parameter with which a leg's excess is a share, by halving: the excess rises with it. */
function solve(legOf: (parameter: number) => EaseLeg, share: number, least: number, most: number): number {
  let [low, high] = [least, most];
  if (share <= easeExcess(legOf(low))) return low;
  for (let i = 0; i < 60 && high - low > 1e-12 * high; i++) {
    const middle = (low + high) / 2;
    if (easeExcess(legOf(middle)) < share) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
