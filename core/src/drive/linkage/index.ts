import { sliderCrank } from './slider-crank';
import { wheel } from './wheel';
import type { Linkage } from './linkage';

/** The mechanisms that evaluate today, by the name in the file. One line a mechanism. */
export const LINKAGES: ReadonlyMap<string, Linkage> = new Map<string, Linkage>([
  ['wheel', wheel],
  ['slider-crank', sliderCrank],
]);

export type { Linkage, Mechanism } from './linkage';
