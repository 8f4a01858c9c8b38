import { number, oneOf, otherwise, positive } from '../../project';
import { linkage, proportional } from './linkage';

/** Two gears: ±angle·teethIn/teethOut + phase, turning against each other where they mesh outside. */
export const gear = linkage<{ teethIn: number; teethOut: number; mesh: string; phase: number }>('gear', {
  inputs: ['angle'],
  outputs: ['angle'],
  params: {
    teethIn: positive(),
    teethOut: positive(),
    mesh: otherwise(oneOf('external', 'internal'), 'external'),
    phase: otherwise(number({ unit: '°' }), 0),
  },
  make: ({ teethIn, teethOut, mesh, phase }) =>
    proportional(((mesh === 'external' ? -1 : 1) * teethIn) / teethOut, phase),
});
