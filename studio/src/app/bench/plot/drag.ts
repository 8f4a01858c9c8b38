import type { DragShown } from './chart-model';

export const NOTHING_SHOWN: DragShown = { chip: null, box: null, old: null, channels: [] };

/** A press that moved less than this, in pixels, is a click. */
export const CLICK_SLOP = 3;
