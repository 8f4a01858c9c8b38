import type { Project } from '@kaizen/core';
import type { DragShown } from './chart-model';

/**
 * What a drag does to a project. It is shown on the project as it was at the press, and done at the release to the
 * project as it is then, so that an undo or an edit from elsewhere in mid-drag is kept.
 */
export type Change = (from: Project) => Project;

/** One drag of the pointer from its press on: what follows moves, the release, and giving it up. */
export interface Drag {
  move(event: PointerEvent): void;
  end(event: PointerEvent): void;
  cancel(): void;
}

export const NOTHING_SHOWN: DragShown = { chip: null, box: null, old: null, channels: [] };

/** A press that moved less than this, in pixels, is a click. */
export const CLICK_SLOP = 3;
