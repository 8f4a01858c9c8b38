import type { Type } from '@angular/core';
import type { LaneDraggable } from './draggable';
import { WeightKey } from './weight-key';
import { WeightLevel } from './weight-level';

export { LaneBead } from './lane-bead';
export type { LaneDraggable } from './draggable';

/** All that can be dragged in the chosen lane. Where several lie at a place, the first of them is meant. */
export const LANE_DRAGGABLES: readonly Type<LaneDraggable<unknown>>[] = [WeightKey, WeightLevel];
