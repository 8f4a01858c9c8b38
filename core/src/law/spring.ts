/**
 * A damped spring whose other end is led along x, ÿ = ω²(x − y) − 2ζω·ẏ, x straight in time: solved exactly (contract §7, the driver
 * `follow`; the closed form is that of any textbook on vibrations, such as Den Hartog, Mechanical Vibrations, chapter 2).
 */
export interface SpringStep {
  /** ω in radians a second, and ζ. */
  readonly omega: number;
  readonly damping: number;
  /** Seconds of the step, and the four numbers that carry place and speed over it where x stands at 0. */
  readonly seconds: number;
  readonly placeByPlace: number;
  readonly placeBySpeed: number;
  readonly speedByPlace: number;
  readonly speedBySpeed: number;
}

/** What a step of some seconds does to a spring of a frequency in Hz. */
export function springStep(frequency: number, damping: number, seconds: number): SpringStep {
  const omega = 2 * Math.PI * frequency;
  const decay = damping * omega;
  const [c, s] = ringing((1 - damping * damping) * omega * omega, decay, seconds);
  return {
    omega,
    damping,
    seconds,
    placeByPlace: c + decay * s,
    placeBySpeed: s,
    speedByPlace: -omega * omega * s,
    speedBySpeed: c - decay * s,
  };
}

/** e^(−decay·t)·cos(wt) and e^(−decay·t)·sin(wt)/w for w² = `square`, which is negative where nothing rings. */
function ringing(square: number, decay: number, t: number): readonly [number, number] {
  const u = square * t * t;
  if (Math.abs(u) < 1e-3) {
    const e = Math.exp(-decay * t);
    const c = 1 - (u / 2) * (1 - (u / 12) * (1 - (u / 30) * (1 - u / 56)));
    const s = t * (1 - (u / 6) * (1 - (u / 20) * (1 - (u / 42) * (1 - u / 72))));
    return [e * c, e * s];
  }
  if (square > 0) {
    const w = Math.sqrt(square);
    const e = Math.exp(-decay * t);
    return [e * Math.cos(w * t), (e * Math.sin(w * t)) / w];
  }
  const w = Math.sqrt(-square);
  const slow = Math.exp((w - decay) * t);
  const fast = Math.exp((-w - decay) * t);
  return [(slow + fast) / 2, (slow - fast) / (2 * w)];
}

/** Place and speed (per second) after a step on which the other end goes from `x0` straight on with `slope` (per second). */
export function takeStep(
  step: SpringStep,
  x0: number,
  slope: number,
  place: number,
  speed: number,
  out: { place: number; speed: number },
): void {
  const behind = (2 * step.damping * slope) / step.omega;
  const z = place - (x0 - behind);
  const w = speed - slope;
  out.place = x0 + slope * step.seconds - behind + step.placeByPlace * z + step.placeBySpeed * w;
  out.speed = slope + step.speedByPlace * z + step.speedBySpeed * w;
}

/** Seconds after which a spring has forgotten how it began to less than 1e-17; Infinity where nothing damps it. */
export function forgetting(frequency: number, damping: number): number {
  const omega = 2 * Math.PI * frequency;
  const rate = damping <= 1 ? damping * omega : omega * (damping - Math.sqrt(damping * damping - 1));
  return rate > 0 ? 39.2 / rate : Infinity;
}
