import { flag, number, otherwise, positive } from '../../project';
import { linkage, proportional } from './linkage';

/** Two pulleys: angle·radiusIn/radiusOut + phase, the other way round where the belt is crossed. */
export const belt = linkage<{ radiusIn: number; radiusOut: number; crossed: boolean; phase: number }>(
  'belt',
  {
    inputs: ['angle'],
    outputs: ['angle'],
    params: {
      radiusIn: positive('m'),
      radiusOut: positive('m'),
      crossed: otherwise(flag(), false),
      phase: otherwise(number({ unit: '°' }), 0),
    },
    make: ({ radiusIn, radiusOut, crossed, phase }) =>
      proportional(((crossed ? -1 : 1) * radiusIn) / radiusOut, phase),
  },
);
