import type { Program } from '@kaizen/core';

/** A rectangle of the canvas, in pixels. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** What is shown while something is dragged: a chip that tells the numbers, and the box of a box selection. */
export interface DragShown {
  readonly chip: { readonly x: number; readonly y: number; readonly text: string } | null;
  readonly box: Box | null;
  /** The project as it was, whose curves stay as pale lines. */
  readonly old: Program | null;
  readonly channels: readonly string[];
}

export const NOTHING_SHOWN: DragShown = { chip: null, box: null, old: null, channels: [] };

/** A press that moved less than this, in pixels, is a click. */
export const CLICK_SLOP = 3;
