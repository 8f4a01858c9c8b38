import type { Law } from './law';

/** Greatest speed and acceleration of a law, as multiples of an even motion's speed (1) and of its height over time squared. */
export interface LawPeaks {
  readonly speed: number;
  readonly acceleration: number;
}

const SAMPLES = 400;

/**
 * Reads |H′| and |H″| at even places and on both sides of each break. Infinite where the law starts or ends upright, as circle does, or
 * steps in speed; where rates grow without bound towards an end, that end is asked.
 */
export function lawPeaks(law: Law): LawPeaks {
  let speed = 0;
  let acceleration = 0;
  const read = (tau: number, left: boolean) => {
    const [, d1, d2] = law.rates(tau, left);
    speed = Math.max(speed, magnitude(d1));
    acceleration = Math.max(acceleration, magnitude(d2));
  };
  for (let i = 0; i <= SAMPLES; i++) read(i / SAMPLES, i === SAMPLES);
  for (const at of law.breaks) {
    read(at, true);
    read(at, false);
  }
  return { speed, acceleration };
}

function magnitude(rate: number): number {
  return Number.isNaN(rate) ? Infinity : Math.abs(rate);
}
