import { number, otherwise } from '../../project';
import { linkage, proportional } from './linkage';

/** A screw and its nut: lead·angle/360 + offset; a left-hand screw has a negative lead. */
export const screw = linkage<{ lead: number; offset: number }>('screw', {
  inputs: ['angle'],
  outputs: ['distance'],
  params: { lead: number({ unit: 'm' }), offset: otherwise(number({ unit: 'm' }), 0) },
  make: ({ lead, offset }) => proportional(lead / 360, offset),
});
