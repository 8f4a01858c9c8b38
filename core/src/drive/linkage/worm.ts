import { positive } from '../../project';
import { linkage, proportional } from './linkage';

/** A worm and its wheel: angle·starts/teeth. */
export const worm = linkage<{ starts: number; teeth: number }>('worm', {
  inputs: ['angle'],
  outputs: ['angle'],
  params: { starts: positive(), teeth: positive() },
  make: ({ starts, teeth }) => proportional(starts / teeth),
});
