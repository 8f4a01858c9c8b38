import type { TimeKnot } from '@kaizen/core';
import { shownFrame } from '../../ui/amount';
import type { Box, DragShown } from '../plot/drag';
import { MONO, type Ink } from '../plot/ink';
import { RULER, xOf, type Plot } from '../plot/plot';
import { drawTags } from '../plot/rates/draw-rates';
import type { BoxGrip } from './draggable/scale-box';
import { headWidth, NAME_HEIGHT, type NamedStrip } from './draw-strip';

/** What shows at the playhead and of an edit of time before it happens. */
export interface TimeShown {
  readonly capture: boolean;
  readonly affected: { readonly first: number; readonly last: number } | null;
  readonly stakes: readonly TimeKnot[];
  /** The box around the chosen keys in each strip, and its grips. */
  readonly boxes?: readonly { readonly edges: Box; readonly grips: readonly BoxGrip[] }[];
  readonly tags?: Parameters<typeof drawTags>[4];
  /** The strips whose names show. */
  readonly named?: readonly NamedStrip[];
}

/** What lies over the drawing and moves all the time: the playhead with its flag, the chip and the box of a drag. */
export function drawOverlay(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  frame: number,
  drag: DragShown | null,
  time: TimeShown,
): void {
  pen.clearRect(0, 0, plot.width, plot.height);
  if (time.affected) drawAffected(pen, plot, ink, time.affected);
  drawStakes(pen, plot, ink, time.stakes);
  drawPlayhead(pen, plot, ink, frame, time);
  drawTags(pen, plot, ink, frame, time.tags ?? []);
  for (const box of time.boxes ?? []) drawBox(pen, ink, box.edges, box.grips);
  if (drag?.box) {
    const { left, top, right, bottom } = drag.box;
    pen.fillStyle = `${ink.select}22`;
    pen.strokeStyle = ink.select;
    pen.lineWidth = 1;
    pen.fillRect(left, top, right - left, bottom - top);
    pen.strokeRect(left + 0.5, top + 0.5, right - left - 1, bottom - top - 1);
  }
  if (drag?.chip) drawChip(pen, plot, ink, drag.chip);
}

/** The box around chosen keys with its grips. */
function drawBox(pen: CanvasRenderingContext2D, ink: Ink, edges: Box, grips: readonly BoxGrip[]): void {
  pen.strokeStyle = ink.select;
  pen.lineWidth = 1;
  pen.strokeRect(edges.left + 0.5, edges.top + 0.5, edges.right - edges.left, edges.bottom - edges.top);
  pen.fillStyle = ink.sheet;
  for (const { x, y } of grips) {
    pen.fillRect(x - 4, y - 4, 8, 8);
    pen.strokeRect(x - 4 + 0.5, y - 4 + 0.5, 8, 8);
  }
}

/** The part of time that an edit affects, while it is shown. */
function drawAffected(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  { first, last }: { readonly first: number; readonly last: number },
): void {
  const left = first === -Infinity ? 0 : Math.max(0, xOf(plot, first));
  const right = last === Infinity ? plot.width : Math.min(plot.width, xOf(plot, last));
  if (right <= left) return;
  pen.fillStyle = `${ink.select}1c`;
  pen.fillRect(left, 0, right - left, plot.height);
  pen.fillStyle = ink.select;
  pen.fillRect(left, RULER - 3, right - left, 3);
}

/** Stakes: a line at where each goes, pale at where it came from, and its frames on a flag at the ruler. */
function drawStakes(pen: CanvasRenderingContext2D, plot: Plot, ink: Ink, stakes: readonly TimeKnot[]): void {
  pen.font = MONO;
  pen.textBaseline = 'middle';
  pen.textAlign = 'center';
  for (const { from, to } of stakes) {
    const x = Math.round(xOf(plot, to));
    pen.fillStyle = ink.select;
    if (from !== to) {
      pen.globalAlpha = 0.35;
      pen.fillRect(Math.round(xOf(plot, from)) - 1, RULER, 2, plot.height - RULER);
      pen.globalAlpha = 1;
    }
    pen.fillRect(x - 1, RULER - 8, 2, plot.height - RULER + 8);
    const by = Math.round((to - from) * 1000) / 1000;
    const text =
      by === 0
        ? shownFrame(to)
        : `${shownFrame(from)} → ${shownFrame(to)} (${by > 0 ? '+' : ''}${shownFrame(by)})`;
    const width = pen.measureText(text).width + 12;
    const left = Math.max(0, Math.min(plot.width - width, x - width / 2));
    pen.beginPath();
    pen.roundRect(left, 3, width, RULER - 8, 3);
    pen.fill();
    pen.fillStyle = ink.sheet;
    pen.fillText(text, left + width / 2, RULER / 2 - 0.5);
  }
}

/** Names of strips reach no farther than this from the left edge, in pixels. */
const NAMES_END = 300;

/** The playhead with its flag, behind the names of strips; a mark on the flag tells that changes become keys there by themselves. */
function drawPlayhead(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  frame: number,
  { capture, named = [] }: TimeShown,
): void {
  const x = Math.round(xOf(plot, frame));
  const text = shownFrame(frame);
  const over = x < NAMES_END ? named.filter((each) => x < headWidth(pen, each)) : [];
  pen.font = `600 12px 'IBM Plex Mono', monospace`;
  const width = pen.measureText(text).width + (capture ? 30 : 16);
  pen.fillStyle = capture ? ink.select : ink.now;
  let from = 0;
  for (const { strip } of over) {
    pen.fillRect(x - 1, from, 2, strip.top - from);
    from = strip.top + NAME_HEIGHT;
  }
  pen.fillRect(x - 1, from, 2, plot.height - from);
  pen.beginPath();
  pen.moveTo(x - 1, 1);
  pen.lineTo(x + width + 5, 1);
  pen.lineTo(x + width, (RULER - 6) / 2 + 1);
  pen.lineTo(x + width + 5, RULER - 5);
  pen.lineTo(x - 1, RULER - 5);
  pen.fill();
  pen.fillStyle = ink.paper;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  pen.fillText(text, x + 6, (RULER - 6) / 2 + 2);
  if (!capture) return;
  pen.beginPath();
  pen.arc(x + width - 9, (RULER - 6) / 2 + 1, 4, 0, 2 * Math.PI);
  pen.fill();
}

function drawChip(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  chip: NonNullable<DragShown['chip']>,
): void {
  pen.font = MONO.replace('11px', '12px');
  const width = pen.measureText(chip.text).width + 20;
  const x = Math.max(4, Math.min(plot.width - width - 4, chip.x + 16));
  const y = Math.max(plot.head + 4, Math.min(plot.height - 28, chip.y + 14));
  pen.fillStyle = ink.ink;
  pen.beginPath();
  pen.roundRect(x, y, width, 24, 4);
  pen.fill();
  pen.fillStyle = ink.paper;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  pen.fillText(chip.text, x + 10, y + 13);
}
