import {
  defined,
  frames,
  list,
  number,
  object,
  oneOf,
  orNull,
  otherwise,
  flag,
  type Field,
  type Fields,
} from './field';
import { OUTSIDE_MODES, SIDE_MODES } from './curve-types';

/** A side, an outside and a leg where the file says nothing (contract §2). */
export const DEFAULT_SIDE = { mode: 'smooth', slope: 0, reach: 1 / 3 } as const;
export const DEFAULT_OUTSIDE = { mode: 'hold', count: null, pin: null } as const;
export const DEFAULT_LEG = { kind: 'curve' } as const;

/** What the times and the values of keys are counted in: frames, or something else. */
export interface KeyAxes {
  readonly times: 'frames' | 'other';
  readonly values: 'frames' | 'other';
}

/** Keys over time, the values in whatever the channel has. */
export const OVER_FRAMES: KeyAxes = { times: 'frames', values: 'other' };

/** A number counted in frames to a power; 0 is a plain number. */
function counted(power: number): Field {
  return power === 0 ? number() : { ...frames(), frames: power };
}

function side(power: number): Field {
  return defined(
    'side',
    object({
      mode: otherwise(oneOf(...SIDE_MODES), DEFAULT_SIDE.mode),
      slope: otherwise(counted(power), DEFAULT_SIDE.slope),
      reach: otherwise(number(), DEFAULT_SIDE.reach),
    }),
  );
}

function outside(times: number): Field {
  return defined(
    'outside',
    object({
      mode: oneOf(...OUTSIDE_MODES),
      count: otherwise(orNull(number({ minimum: 0 })), null),
      pin: otherwise(orNull(counted(times)), null),
    }),
  );
}

/** The fields of keys with their outsides; `leg` is the description of what fills the time after a key. */
export function keyedFields({ times, values }: KeyAxes, leg: Field): Fields {
  const time = times === 'frames' ? 1 : 0;
  const value = values === 'frames' ? 1 : 0;
  const key = defined(
    'key',
    object({
      frame: counted(time),
      value: counted(value),
      joined: otherwise(flag(), true),
      leg: otherwise(leg, DEFAULT_LEG),
      in: otherwise(side(value - time), DEFAULT_SIDE),
      out: otherwise(side(value - time), DEFAULT_SIDE),
    }),
  );
  return {
    keys: otherwise(list(key), []),
    before: otherwise(outside(time), DEFAULT_OUTSIDE),
    after: otherwise(outside(time), DEFAULT_OUTSIDE),
  };
}

/** A curve that is nothing but keys: a weight's, a map's, a placement's. */
export function keyed(axes: KeyAxes, leg: Field): Field {
  return defined('keyed', object(keyedFields(axes, leg)));
}
