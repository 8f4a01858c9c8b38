import type { DragShown } from './chart-model';

/** One drag of the pointer from its press on: what follows moves, the release, and giving it up. */
export interface Drag {
  move(event: PointerEvent): void;
  end(event: PointerEvent): void;
  cancel(): void;
}

export const NOTHING_SHOWN: DragShown = { chip: null, box: null, old: null, channels: [] };

/** A press that moved less than this, in pixels, is a click. */
export const CLICK_SLOP = 3;
