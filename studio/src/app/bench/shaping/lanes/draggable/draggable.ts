import type { Drag } from '../../../../ui/follow-drag';
import type { LaneShown } from '../lanes';

/** How near to a thing in pixels a press means it. */
export const REACH = 8;

/** A thing in the chosen lane that can be dragged: how the pointer looks over it, how it is found, and what a drag of it does. */
export interface LaneDraggable<T> {
  readonly cursor: string;
  hit(lane: LaneShown, x: number, y: number): T | null;
  begin(lane: LaneShown, down: PointerEvent, target: T): Drag | null;
}
