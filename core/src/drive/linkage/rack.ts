import { number, otherwise, positive } from '../../project';
import { RADIANS } from '../../law';
import { linkage, proportional } from './linkage';

/** A pinion on a rack: radius·rad(angle) + offset. */
export const rack = linkage<{ radius: number; offset: number }>('rack', {
  inputs: ['angle'],
  outputs: ['distance'],
  params: { radius: positive('m'), offset: otherwise(number({ unit: 'm' }), 0) },
  make: ({ radius, offset }) => proportional(radius * RADIANS, offset),
});
