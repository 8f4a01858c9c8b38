import type { Curve, Key } from '@kaizen/core';
import { forList } from './for-list';
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

/** Hollow pegs where any of some curves has a key; filled where one of them is chosen. */
export function drawSummaryPegs(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  curves: readonly Curve[],
  top: number,
  chosen: ReadonlySet<number>,
): void {
  pen.lineWidth = 1.1;
  for (const frame of keyFrames(curves, null)) {
    if (frame < plot.axis.first - 20 || frame > plot.axis.last + 20) continue;
    const x = Math.round(xOf(plot, frame)) + 0.5;
    const isChosen = chosen.has(frame);
    pen.strokeStyle = isChosen ? ink.select : ink.ink;
    pen.fillStyle = isChosen ? ink.select : ink.sheet;
    pegShape(pen, x, top + ROW / 2, 5, 11, lean(frame));
    pen.fill();
    pen.stroke();
  }
}

/** All frames on which any of some curves has a key, each once. */
const keyFrames = forList(
  (curves: readonly Curve[], _asked: null): ReadonlySet<number> =>
    new Set(curves.flatMap((curve) => curve.keys.map((key) => key.frame))),
);

/** A mark on the key where the repeating part begins. */
export function drawPin(pen: CanvasRenderingContext2D, x: number, y: number): void {
  pen.beginPath();
  pen.moveTo(x - 5, y);
  pen.lineTo(x + 5, y);
  pen.lineTo(x, y + 7);
  pen.fill();
}
