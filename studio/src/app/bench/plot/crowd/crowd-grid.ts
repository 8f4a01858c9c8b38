import { firstAtOrAfter } from '@kaizen/core';

/** What a grid needs of a curve: its value at a frame, and the frames of its keys, rising. */
export interface CrowdCurve {
  value(frame: number): number;
  readonly keyFrames: Float64Array;
}

/** Where a grid's cells lie: columns from `from`, each `step` frames wide; rows from `low` (the lowest row) to `high`. */
export interface CrowdWindow {
  readonly from: number;
  readonly step: number;
  readonly columns: number;
  readonly rows: number;
  readonly low: number;
  readonly high: number;
}

/**
 * Many curves as one drawing: how many of them pass each cell of a grid. A curve is added or taken away by itself, so that an
 * edit of one curve costs one curve; drawing costs cells, however many curves there are.
 */
export class CrowdGrid {
  /** Row by row from the top, `columns` a row. */
  readonly counts: Uint16Array;

  constructor(readonly window: CrowdWindow) {
    this.counts = new Uint16Array(window.columns * window.rows);
  }

  /** Adds a curve, or takes it away again (`by` −1). What lies above or below the grid is left out. */
  add(curve: CrowdCurve, by: 1 | -1): void {
    const { from, step, columns, rows, low, high } = this.window;
    const scale = rows / (high - low);
    const { keyFrames } = curve;
    const rowOf = (value: number) => (high - value) * scale;
    let key = firstAtOrAfter(keyFrames, from);
    let before = rowOf(curve.value(from));
    for (let column = 0; column < columns; column++) {
      const end = from + (column + 1) * step;
      const after = rowOf(curve.value(end));
      let top = Math.min(before, after);
      let bottom = Math.max(before, after);
      for (let k = 0; key < keyFrames.length && keyFrames[key]! < end; key++, k++) {
        if (k >= MOST_KEYS_A_COLUMN) continue;
        const at = rowOf(curve.value(keyFrames[key]!));
        if (at < top) top = at;
        if (at > bottom) bottom = at;
      }
      before = after;
      if (!(bottom >= 0) || top >= rows) continue;
      const first = Math.max(0, Math.floor(top));
      const last = Math.min(rows - 1, Math.floor(bottom));
      for (let row = first, cell = first * columns + column; row <= last; row++, cell += columns)
        this.counts[cell]! += by;
    }
  }
}

/** With more keys than this in a column the others change next to nothing of what it shows. */
const MOST_KEYS_A_COLUMN = 8;

/** Pixels of a grid in one colour (0 to 255 each): one curve is faint, many are strong. RGBA, row by row from the top. */
export function crowdPixels(
  counts: Uint16Array,
  [r, g, b]: readonly [number, number, number],
  out: Uint8ClampedArray,
): void {
  for (let i = 0, at = 0; i < counts.length; i++, at += 4) {
    const count = counts[i]!;
    out[at] = r;
    out[at + 1] = g;
    out[at + 2] = b;
    out[at + 3] = count === 0 ? 0 : STRENGTHS[count < STRENGTHS.length ? count : STRENGTHS.length - 1]!;
  }
}

/** How opaque a cell is by its count: with the logarithm, so that lone curves are seen beside thousands. */
const STRENGTHS = Uint8Array.from({ length: 1024 }, (_, count) =>
  Math.min(215, 58 + 26 * Math.log2(Math.max(1, count))),
);
