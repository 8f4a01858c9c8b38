import type { Limit } from '../project';
import type { RateOrder } from './rate-line';

/** Between what a limit lets a value or a rate be; one end may be open, and is infinite then. */
export interface LimitBand {
  readonly low: number;
  readonly high: number;
}

const RATES = { 1: 'speed', 2: 'acceleration', 3: 'jerk' } as const;

/** The band of a channel's limit for its value (order 0) or a rate, per second; null where nothing is said of it. */
export function limitBand(order: RateOrder, limits: Limit | undefined): LimitBand | null {
  if (!limits) return null;
  if (order === 0) {
    const [low, high] = [limits.min ?? -Infinity, limits.max ?? Infinity];
    return low === -Infinity && high === Infinity ? null : { low, high };
  }
  const limit = limits[RATES[order]] ?? null;
  return limit === null ? null : { low: -limit, high: limit };
}
