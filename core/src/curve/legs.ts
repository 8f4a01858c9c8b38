import {
  CAM_LAWS,
  EASE_FAMILIES,
  defined,
  kinds,
  maybe,
  number,
  oneOf,
  orNull,
  positive,
  type Field,
  type Fields,
  type Leg,
} from '../project';
import { camLaw, easeLaw, type Law } from '../law';

/** A way to fill the time between two keys (contract §3). */
interface LegKind<T extends Leg> {
  readonly fields: Fields;
  /** The law that fills it; left out where it is none. */
  readonly law?: (leg: T) => Law;
  /** What is wrong with its numbers together, or null. */
  readonly refuse?: (leg: T) => string | null;
  /** It needs seconds, and so a curve over time. */
  readonly overTimeOnly?: true;
}

const share = (): Field => maybe(number({ minimum: 0, maximum: 1 }));

/** The legs by kind. */
const LEGS: { readonly [K in Leg['kind']]: LegKind<Extract<Leg, { kind: K }>> } = {
  curve: { fields: {} },
  hold: { fields: {} },
  ease: {
    fields: {
      family: oneOf(...EASE_FAMILIES),
      slow: oneOf('start', 'end', 'both'),
      overshoot: maybe(number()),
      amplitude: maybe(number()),
      period: maybe(positive()),
    },
    law: easeLaw,
  },
  law: {
    fields: {
      law: oneOf(...CAM_LAWS),
      accelerate: share(),
      decelerate: share(),
      smoothing: maybe(number({ exclusiveMinimum: 0, maximum: 1 })),
    },
    law: camLaw,
    refuse: (leg) => {
      if (leg.law !== 'trapezoid' && leg.law !== 's-curve') return null;
      const sum = (leg.accelerate ?? 1 / 3) + (leg.decelerate ?? 1 / 3);
      return sum > 1 + 1e-12
        ? `accelerate and decelerate add up to ${sum}; together they must be at most 1`
        : null;
    },
  },
  ballistic: { fields: { gravity: maybe(orNull(number())) }, overTimeOnly: true },
};

/** A leg as a file has it. */
export const LEG: Field = defined(
  'leg',
  kinds('kind', Object.fromEntries(Object.entries(LEGS).map(([kind, { fields }]) => [kind, fields]))),
);

/** The law that fills a leg, or null where the leg is no law (a curve, a hold, a free fall). */
export function legLaw(leg: Leg): Law | null {
  return (LEGS[leg.kind] as LegKind<Leg>).law?.(leg) ?? null;
}

/** Why a leg can't stand where it does, in one sentence, or null. */
export function legRefusal(leg: Leg, overTime: boolean): string | null {
  const kind = LEGS[leg.kind] as LegKind<Leg>;
  if (kind.overTimeOnly && !overTime)
    return 'a free fall needs seconds, and this curve does not run over time; it must be another leg';
  return kind.refuse?.(leg) ?? null;
}
