import { firstAtOrAfter, firstWhere, type Curve, type Key } from '@kaizen/core';
import { FrameCounts } from './frame-counts';
import type { Ink } from './ink';
import { ROW, xOf, type Plot } from './plot';

/** How far a peg leans: keys off the whole frame do. */
export function lean(frame: number): number {
  return Number.isInteger(frame) ? 0 : 3;
}

export function pegShape(
  pen: CanvasRenderingContext2D,
  x: number,
  y: number,
  width: number,
  height: number,
  leaning: number,
): void {
  const [w, h] = [width / 2, height / 2];
  pen.beginPath();
  pen.moveTo(x - w + leaning, y - h);
  pen.lineTo(x + w + leaning, y - h);
  pen.lineTo(x + w - leaning, y + h);
  pen.lineTo(x - w - leaning, y + h);
  pen.closePath();
}

export function drawPeg(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  color: string,
  key: Key,
  y: number,
  width: number,
  height: number,
): void {
  const x = xOf(plot, key.frame);
  if (x < -10 || x > plot.width + 10) return;
  pen.fillStyle = color;
  pegShape(pen, x, y, width, height, lean(key.frame));
  pen.fill();
}

/** Hollow pegs where any of some curves has a key; filled where one of them is chosen. Keys nearer than a pixel are one peg. */
export function drawSummaryPegs(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  curves: readonly Curve[],
  top: number,
  chosen: ReadonlySet<number>,
): void {
  pen.lineWidth = 1.1;
  const pegs = pegColumns(plot, curves);
  const styles = [
    { fill: ink.sheet, stroke: ink.ink, isChosen: false },
    { fill: ink.select, stroke: ink.select, isChosen: true },
  ];
  const chosenColumns = new Set([...chosen].map((frame) => Math.round(xOf(plot, frame))));
  for (const { fill, stroke, isChosen } of styles) {
    pen.fillStyle = fill;
    pen.strokeStyle = stroke;
    for (let i = 0; i < pegs.length; i++) {
      const frame = pegs[i]!;
      if (Number.isNaN(frame) || chosenColumns.has(i - PEG_MARGIN) !== isChosen) continue;
      pegShape(pen, i - PEG_MARGIN + 0.5, top + ROW / 2, 5, 11, lean(frame));
      pen.fill();
      pen.stroke();
    }
  }
}

/** Pegs reach so many pixels into the plot from beside it. */
const PEG_MARGIN = 8;

/** The frame of the first key in each pixel column of the plot, with a margin at both sides; NaN where there is none. */
function pegColumns(plot: Plot, curves: readonly Curve[]): Float64Array {
  const columns = new Float64Array(Math.ceil(plot.width) + 2 * PEG_MARGIN).fill(Number.NaN);
  const { first, last } = plot.axis;
  const scale = plot.width / (last - first);
  const frames = framesOf(curves);
  for (let i = firstAtOrAfter(frames, first - PEG_MARGIN / scale); i < frames.length; i++) {
    const column = Math.round((frames[i]! - first) * scale) + PEG_MARGIN;
    if (column >= columns.length) break;
    if (column >= 0 && Number.isNaN(columns[column]!)) columns[column] = frames[i]!;
  }
  return columns;
}

/** The frames on which any of some curves has a key, each once, rising; and how many curves have one there. */
interface FrameUnion {
  curves: readonly Curve[];
  readonly counts: FrameCounts;
  frames: Float64Array;
}
const unions = new Map<string, FrameUnion>();
const MOST_UNIONS = 200;

/** All key frames of some curves. Where one of the same curves is another than last time, only its frames are counted anew. */
function framesOf(curves: readonly Curve[]): Float64Array {
  const key = `${curves[0]?.channel ?? ''} ${curves.length} ${curves.at(-1)?.channel ?? ''}`;
  let union = unions.get(key);
  if (
    !union ||
    union.curves.length !== curves.length ||
    union.curves.some((c, i) => c.channel !== curves[i]!.channel)
  ) {
    union = { curves: [], counts: new FrameCounts(), frames: new Float64Array(0) };
    if (unions.size >= MOST_UNIONS) unions.delete(unions.keys().next().value!);
    unions.set(key, union);
  }
  let changed = false;
  for (let i = 0; i < curves.length; i++) {
    const [was, is] = [union.curves[i], curves[i]!];
    if (was === is || (was && was.keys === is.keys)) continue;
    if (was) union.counts.add(was, -1);
    union.counts.add(is, 1);
    changed = true;
  }
  union.curves = curves;
  if (changed) union.frames = union.counts.frames();
  return union.frames;
}

/** The place of the first key at or after a frame. */
export function firstKeyFrom(keys: readonly Key[], frame: number): number {
  return firstWhere(0, keys.length, (i) => keys[i]!.frame >= frame);
}

/** A mark on the key where the repeating part begins. */
export function drawPin(pen: CanvasRenderingContext2D, x: number, y: number): void {
  pen.beginPath();
  pen.moveTo(x - 5, y);
  pen.lineTo(x + 5, y);
  pen.lineTo(x, y + 7);
  pen.fill();
}
