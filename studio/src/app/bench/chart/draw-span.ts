import { constraintSpan, unmetSpans, type Program, type Project } from '@kaizen/core';
import { WORDS, type Ink } from '../plot/ink';
import { ROW, xOf, type Plot } from '../plot/plot';
import type { SpanRow } from '../plot/rows';

interface SpanScene {
  readonly plot: Plot;
  readonly ink: Ink;
  readonly project: Project;
  readonly program: Program | null;
}

/** Half the height of a span's bar, and how far its stops reach beyond it. */
const HALF = 6.5;
const STOP = 3;

/**
 * A constraint in its row: a bar from where it begins to act to where it ends, with stops at ends that it has. Frames on which it
 * is not met are a wedge in it, with the reason.
 */
export function drawSpan(pen: CanvasRenderingContext2D, scene: SpanScene, row: SpanRow, top: number): void {
  const { plot, ink, project } = scene;
  const { constraint } = row;
  const middle = top + ROW / 2;
  const span = constraintSpan(constraint);
  const left = span ? xOf(plot, span.start) : -STOP;
  const right = span && span.end !== null ? xOf(plot, span.end) : plot.width + STOP;
  pen.save();
  if (constraint.muted) pen.setLineDash([3, 3]);
  pen.fillStyle = ink.sheet;
  pen.fillRect(left, middle - HALF, right - left, HALF * 2);
  pen.strokeStyle = constraint.muted ? ink.soft : ink.ink;
  pen.lineWidth = 1;
  pen.beginPath();
  for (const y of [Math.round(middle - HALF) + 0.5, Math.round(middle + HALF) - 0.5]) {
    pen.moveTo(left, y);
    pen.lineTo(right, y);
  }
  pen.stroke();
  pen.setLineDash([]);
  if (constraint.kind === 'plant' && constraint.fade > 0) drawFade(pen, scene, constraint.end, middle);
  pen.fillStyle = constraint.muted ? ink.soft : ink.ink;
  if (span) drawStop(pen, left, middle, 1);
  if (span && span.end !== null) drawStop(pen, right, middle, -1);
  const failing = constraint.muted ? null : unmet(scene, row);
  for (const { first, last, why } of failing ?? []) drawUnmet(pen, scene, first, last, why, middle);
  pen.restore();
  if (constraint.muted || failing === null || failing.length > 0) return;
  pen.font = WORDS;
  pen.textBaseline = 'middle';
  pen.textAlign = 'left';
  pen.fillStyle = ink.ok;
  const x = Math.max(left, xOf(plot, project.range.start), 0) + 10;
  if (right - x > pen.measureText(MET).width + 10) pen.fillText(MET, x, middle + 1);
}

const MET = 'met on every frame';

function unmet(
  { program, plot, project }: SpanScene,
  { constraint }: SpanRow,
): ReturnType<typeof unmetSpans> | null {
  const place = program?.constraints.findIndex(({ id }) => id === constraint.id) ?? -1;
  if (!program || place < 0) return null;
  const first = Math.max(project.range.start, Math.floor(plot.axis.first));
  const last = Math.min(project.range.end, Math.ceil(plot.axis.last));
  return unmetSpans(program, place, first, last);
}

/** An upright 3 wide with feet turned inwards. */
function drawStop(pen: CanvasRenderingContext2D, x: number, middle: number, inwards: 1 | -1): void {
  pen.fillRect(inwards > 0 ? x : x - STOP, middle - HALF - 2.5, STOP, HALF * 2 + 5);
  for (const y of [middle - HALF - 2.5, middle + HALF + 0.5])
    pen.fillRect(inwards > 0 ? x : x - STOP * 2.5, y, STOP * 2.5, 2);
}

/** What a plant held fades out after its end: a line that falls. */
function drawFade(
  pen: CanvasRenderingContext2D,
  { plot, ink }: SpanScene,
  end: number,
  middle: number,
): void {
  pen.strokeStyle = ink.soft;
  pen.setLineDash([2, 3]);
  pen.beginPath();
  pen.moveTo(xOf(plot, end), middle - HALF);
  pen.lineTo(xOf(plot, end), middle + HALF);
  pen.stroke();
  pen.setLineDash([]);
}

function drawUnmet(
  pen: CanvasRenderingContext2D,
  { plot, ink }: SpanScene,
  first: number,
  last: number,
  why: string,
  middle: number,
): void {
  const [a, b] = [xOf(plot, first), Math.max(xOf(plot, last), xOf(plot, first) + 3)];
  pen.fillStyle = ink.warn;
  pen.beginPath();
  pen.moveTo(a, middle + HALF);
  const rise = Math.min(10, (b - a) / 2);
  pen.lineTo(a + rise, middle - HALF + 1);
  pen.lineTo(b - rise, middle - HALF + 1);
  pen.lineTo(b, middle + HALF);
  pen.fill();
  pen.font = WORDS;
  pen.textBaseline = 'middle';
  pen.textAlign = 'left';
  const width = pen.measureText(why).width + 14;
  const x = Math.max(4, Math.min(b + 4, plot.width - width - 4));
  pen.fillRect(x, middle - 8, width, 16);
  pen.fillStyle = ink.sheet;
  pen.fillText(why, x + 7, middle + 1);
}
