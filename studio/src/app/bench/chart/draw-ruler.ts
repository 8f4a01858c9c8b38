import type { Project } from '@kaizen/core';
import { shownFrame } from '../../ui/amount';
import { MONO, type Ink } from '../plot/ink';
import { RULER, xOf, type Plot } from '../plot/plot';
import { rulerStep } from '../plot/time-axis';

/** Vertical lines under everything, at the ruler's marks. */
export function drawTimeGrid(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  framesPerSecond: number,
): void {
  const step = rulerStep(plot.axis, plot.width, framesPerSecond, 56);
  pen.strokeStyle = ink.ruleSoft;
  pen.lineWidth = 1;
  pen.beginPath();
  for (let frame = Math.ceil(plot.axis.first / step) * step; frame <= plot.axis.last; frame += step) {
    const x = Math.round(xOf(plot, frame)) + 0.5;
    pen.moveTo(x, RULER);
    pen.lineTo(x, plot.height);
  }
  pen.stroke();
}

/** Frame numbers and marks, and the shot's range as a bar between two flags. */
export function drawRuler(pen: CanvasRenderingContext2D, plot: Plot, ink: Ink, project: Project): void {
  const framesPerSecond = project.rate.frames / project.rate.per;
  pen.fillStyle = ink.paper;
  pen.fillRect(0, 0, plot.width, RULER);
  const step = rulerStep(plot.axis, plot.width, framesPerSecond, 56);
  const small = rulerStep(plot.axis, plot.width, framesPerSecond, 6);
  pen.strokeStyle = ink.soft;
  pen.fillStyle = ink.soft;
  pen.font = MONO;
  pen.textAlign = 'center';
  pen.textBaseline = 'alphabetic';
  pen.beginPath();
  for (let frame = Math.ceil(plot.axis.first / small) * small; frame <= plot.axis.last; frame += small) {
    const x = Math.round(xOf(plot, frame)) + 0.5;
    pen.moveTo(x, frame % step === 0 ? RULER - 7 : RULER - 4);
    pen.lineTo(x, RULER);
  }
  pen.stroke();
  for (let frame = Math.ceil(plot.axis.first / step) * step; frame <= plot.axis.last; frame += step) {
    pen.fillText(shownFrame(frame), xOf(plot, frame), 13);
  }
  pen.fillStyle = ink.ink;
  drawRangeMark(pen, xOf(plot, project.range.start), 1);
  drawRangeMark(pen, xOf(plot, project.range.end), -1);
  pen.fillRect(0, RULER - 0.5, plot.width, 1);
}

/** A small flag that points into the range. */
function drawRangeMark(pen: CanvasRenderingContext2D, x: number, into: 1 | -1): void {
  pen.beginPath();
  pen.moveTo(x, RULER - 10);
  pen.lineTo(x + into * 9, RULER);
  pen.lineTo(x, RULER);
  pen.fill();
}

/** Hatched ground before a frame and after another. */
export function drawOutsideGround(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  span: { readonly first: number; readonly last: number },
  top: number,
  height: number,
): void {
  pen.fillStyle = ink.hatch;
  const left = Math.min(plot.width, xOf(plot, span.first));
  const right = Math.max(0, xOf(plot, span.last));
  if (left > 0) pen.fillRect(0, top, left, height);
  if (right < plot.width) pen.fillRect(right, top, plot.width - right, height);
}
