import { belt } from './belt';
import { cam } from './cam';
import { fourBar } from './four-bar';
import { gear } from './gear';
import { geneva } from './geneva';
import type { Linkage } from './linkage';
import { planetary } from './planetary';
import { quickReturn } from './quick-return';
import { rack } from './rack';
import { scissor } from './scissor';
import { scotchYoke } from './scotch-yoke';
import { screw } from './screw';
import { sliderCrank } from './slider-crank';
import { twoLink } from './two-link';
import { universalJoint } from './universal-joint';
import { wheel } from './wheel';
import { worm } from './worm';

/** The mechanisms by the name in the file (contract §8). One line a mechanism. */
export const LINKAGES: ReadonlyMap<string, Linkage> = new Map<string, Linkage>([
  ['gear', gear],
  ['belt', belt],
  ['worm', worm],
  ['planetary', planetary],
  ['rack', rack],
  ['wheel', wheel],
  ['screw', screw],
  ['slider-crank', sliderCrank],
  ['scotch-yoke', scotchYoke],
  ['four-bar', fourBar],
  ['quick-return', quickReturn],
  ['geneva', geneva],
  ['cam', cam],
  ['universal-joint', universalJoint],
  ['two-link', twoLink],
  ['scissor', scissor],
]);

export type { Linkage, Mechanism } from './linkage';
export { camProfile, type CamProfile } from './cam-profile';
