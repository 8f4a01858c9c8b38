import { shownFrame } from '../../ui/amount';
import type { DragShown } from './chart-model';
import { MONO, type Ink } from './ink';
import { RULER, xOf, type Plot } from './plot';

/** What lies over the drawing and moves all the time: the playhead with its flag, the chip and the box of a drag. */
export function drawOverlay(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  frame: number,
  drag: DragShown | null,
): void {
  pen.clearRect(0, 0, plot.width, plot.height);
  drawPlayhead(pen, plot, ink, frame);
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

function drawPlayhead(pen: CanvasRenderingContext2D, plot: Plot, ink: Ink, frame: number): void {
  const x = Math.round(xOf(plot, frame));
  const text = shownFrame(frame);
  pen.font = `600 12px 'IBM Plex Mono', monospace`;
  const width = pen.measureText(text).width + 16;
  pen.fillStyle = ink.now;
  pen.fillRect(x - 1, 0, 2, plot.height);
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
  const y = Math.max(RULER + 4, Math.min(plot.height - 28, chip.y + 14));
  pen.fillStyle = ink.ink;
  pen.beginPath();
  pen.roundRect(x, y, width, 24, 4);
  pen.fill();
  pen.fillStyle = ink.paper;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  pen.fillText(chip.text, x + 10, y + 13);
}
