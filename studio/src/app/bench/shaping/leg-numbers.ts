import { easeExcess, withExcess, type Leg } from '@kaizen/core';

/** A number of a leg as a field shows it: in words and units that one works in, whatever the file keeps. */
export interface LegNumber {
  readonly name: string;
  readonly label: string;
  readonly unit: string;
  readonly decimals: number;
  readonly tip: string;
  read(leg: Leg): number;
  /** The leg with the number set, within what it may be. */
  write(leg: Leg, value: number): Leg;
}

const overshoot: LegNumber = {
  name: 'overshoot',
  label: 'Past the end',
  unit: '%',
  decimals: 1,
  tip: 'How far it goes past its end, of the way it goes',
  read: (leg) => (leg.kind === 'ease' ? easeExcess(leg) * 100 : 0),
  write: (leg, value) => (leg.kind === 'ease' ? withExcess(leg, value / 100) : leg),
};

/** A spring's period where none is given, in the leg's length. */
const PERIOD = 0.3;

const swings: LegNumber = {
  name: 'swings',
  label: 'Swings',
  unit: 'times',
  decimals: 2,
  tip: 'How often it swings to and fro in the leg; more of them die more slowly from one to the next',
  read: (leg) => (leg.kind === 'ease' ? 1 / (leg.period ?? PERIOD) : 0),
  write: (leg, value) =>
    leg.kind === 'ease' ? { ...leg, period: between(1 / Math.max(0.1, value), 0.01, 10) } : leg,
};

/** A ramp of a trapezoid or s-curve as a share of the leg; both together take at most the whole. */
function ramp(name: 'accelerate' | 'decelerate', label: string): LegNumber {
  const other = name === 'accelerate' ? 'decelerate' : 'accelerate';
  const shareOf = (leg: Leg, which: typeof name) => (leg.kind === 'law' ? leg[which] : undefined) ?? 1 / 3;
  return {
    name,
    label,
    unit: '',
    decimals: 3,
    tip: `${label}, a share of the leg from 0 to 1`,
    read: (leg) => shareOf(leg, name),
    write: (leg, value) =>
      leg.kind === 'law' ? { ...leg, [name]: between(value, 0, 1 - shareOf(leg, other)) } : leg,
  };
}

const smoothing: LegNumber = {
  name: 'smoothing',
  label: 'Smoothing',
  unit: '',
  decimals: 3,
  tip: 'How much of each ramp the acceleration takes to come and go, from 0.001 to 1',
  read: (leg) => (leg.kind === 'law' ? leg.smoothing : undefined) ?? 1,
  write: (leg, value) => (leg.kind === 'law' ? { ...leg, smoothing: between(value, 0.001, 1) } : leg),
};

const RAMPS = [ramp('accelerate', 'Accelerate'), ramp('decelerate', 'Decelerate')];
const OF_EASE: Readonly<Record<string, readonly LegNumber[]>> = {
  back: [overshoot],
  elastic: [swings, overshoot],
};
const OF_LAW: Readonly<Record<string, readonly LegNumber[]>> = {
  trapezoid: RAMPS,
  's-curve': [...RAMPS, smoothing],
};

/** The numbers a leg has by its family or law. */
export function legNumbers(leg: Leg): readonly LegNumber[] {
  if (leg.kind === 'ease') return OF_EASE[leg.family] ?? [];
  return leg.kind === 'law' ? (OF_LAW[leg.law] ?? []) : [];
}

/** How fast a spring dies, in words; null for legs that do not swing. Its height halves every tenth of the leg (d3-ease). */
export function dyingWords(leg: Leg): string | null {
  if (leg.kind !== 'ease' || leg.family !== 'elastic') return null;
  const next = 2 ** (-10 * (leg.period ?? PERIOD));
  return `each swing is ${next < 0.01 ? 'under 1' : Math.round(next * 100)} % of the one before`;
}

function between(value: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, value));
}
