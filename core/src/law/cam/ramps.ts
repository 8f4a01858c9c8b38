import { advanceJet } from '../jet';
import { pieceAt, type Jet, type Law } from '../law';

/**
 * Trapezoid and s-curve: speed rises over `accelerate`, cruises at V = 1/(1 − (a+d)/2), falls over
 * `decelerate`. Inside a ramp of length L the acceleration is constant (smoothing 0), or rises linearly
 * over m·L/2, stays, and falls linearly over m·L/2. Pieces of constant jerk, integrated from rest; the second
 * half is integrated backwards from the arrival, so both ends are exact.
 */
export function ramps(accelerate: number, decelerate: number, smoothing: number): Law {
  const speed = 1 / (1 - (accelerate + decelerate) / 2);
  const up = ramp(accelerate, speed, smoothing);
  const down = ramp(decelerate, speed, smoothing);
  const cruiseEnd = 1 - decelerate;
  const rates = (tau: number, left = false): Jet => {
    if (accelerate > 0 && (left ? tau <= accelerate : tau < accelerate)) return up.rates(tau, left);
    if (decelerate > 0 && (left ? tau > cruiseEnd : tau >= cruiseEnd)) {
      const [s, v, a, j] = down.rates(1 - tau, !left);
      return [1 - s, v, -a, j];
    }
    return [speed * (tau - accelerate / 2), speed, 0, 0];
  };
  const inner = [...up.ends, ...down.ends.map((at) => 1 - at).reverse()].filter((at) => at > 0 && at < 1);
  const breaks = inner.filter((at, i) => i === 0 || at > (inner[i - 1] ?? 0));
  return { value: (tau) => rates(tau)[0], rates, breaks };
}

/** Shorter ramps are jumps of speed: their acceleration would not be a number. */
const SHORTEST = 1e-100;

interface Ramp {
  readonly rates: (x: number, left: boolean) => Jet;
  readonly ends: readonly number[];
}

function ramp(length: number, speed: number, smoothing: number): Ramp {
  if (length < SHORTEST) return { rates: () => [0, speed, 0, 0], ends: [] };
  const rise = (smoothing * length) / 2;
  const peak = speed / (length - rise);
  if (rise === 0) return { rates: (x) => [(peak * x * x) / 2, peak * x, peak, 0], ends: [length] };
  const jerk = peak / rise;
  const breaks = smoothing < 1 ? [rise, length - rise] : [rise];
  const pieces = smoothing < 1 ? [jerk, 0, -jerk] : [jerk, -jerk];
  const states: Jet[] = [[0, 0, 0, jerk]];
  breaks.forEach((at, i) => {
    const [s, v, a] = advanceJet(states[i] ?? [0, 0, 0, 0], at - (breaks[i - 1] ?? 0));
    states.push([s, v, a, pieces[i + 1] ?? 0]);
  });
  return {
    rates: (x, left) => {
      const piece = pieceAt(x, breaks, left);
      return advanceJet(states[piece] ?? [0, 0, 0, 0], x - (breaks[piece - 1] ?? 0));
    },
    ends: [...breaks, length],
  };
}
