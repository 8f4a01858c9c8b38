import { interlockStanding, type InterlockStanding, type Project } from '@kaizen/core';
import { shownFrame } from '../../ui/amount';
import { channelLabel } from '../stage/channel-label';
import { MONO, WORDS, type Ink } from '../plot/ink';
import { ROW, xOf, type Plot } from '../plot/plot';
import type { Row, ThreadRow } from '../plot/rows';

interface ThreadScene {
  readonly plot: Plot;
  readonly ink: Ink;
  readonly project: Project;
  readonly rows: readonly Row[];
  readonly scrollTop: number;
}

/** Half the height of the bar that is the least gap, and the size of a thread's eyes. */
const HALF = 3;
const EYE = 3.2;
/** How deep the line of what is to spare sags, at most, and for how many pixels to spare it sags by one. */
const DEEPEST = 8;
const SAG_EVERY = 8;

/**
 * An interlock in its track: from the peg that is waited for a bar as long as the least gap, from there a line that sags by what is
 * to spare to the peg that waits. Where frames are missing, the bar goes on past the peg.
 */
export function drawThread(
  pen: CanvasRenderingContext2D,
  scene: ThreadScene,
  row: ThreadRow,
  top: number,
): void {
  const { plot, ink, project } = scene;
  const { lock } = row;
  const standing = interlockStanding(project, lock);
  const middle = top + ROW / 2 + 0.5;
  const waits = xOf(plot, lock.frame);
  pen.save();
  pen.lineWidth = 1.2;
  if (lock.muted) pen.setLineDash([3, 3]);
  if (standing.awaited === null || standing.due === null) drawNever(pen, ink, waits, top, middle);
  else {
    const from = xOf(plot, standing.awaited);
    drawUprights(pen, scene, row, { from, waits, top, middle }, standing);
    drawGap(pen, scene, row, standing, { from, waits, middle });
  }
  pen.restore();
}

interface Ends {
  readonly from: number;
  readonly waits: number;
  readonly middle: number;
}

/** The lines from the track to the two pegs, each with an eye; to a row out of sight an arrow and its name. */
function drawUprights(
  pen: CanvasRenderingContext2D,
  scene: ThreadScene,
  { lock, id }: ThreadRow,
  { from, waits, top, middle }: Ends & { readonly top: number },
  { holds }: InterlockStanding,
): void {
  const { plot, ink, rows, scrollTop, project } = scene;
  const own = rows.findIndex((row) => row.kind === 'channel' && row.id === lock.channel);
  const other = rows.findIndex((row) => row.kind === 'channel' && row.id === lock.after.channel);
  const here = rows.findIndex((row) => row.kind === 'thread' && row.id === id);
  const heightOf = (index: number) => plot.head + index * ROW - scrollTop + ROW / 2;
  pen.strokeStyle = lock.muted ? ink.soft : ink.ink;
  if (own >= 0) upright(pen, waits, middle, heightOf(own) + 8, !holds && !lock.muted ? ink.warn : null);
  if (other >= 0) upright(pen, from, middle, heightOf(other) + (other < here ? 8 : -8), null);
  else {
    upright(pen, from, middle, top + 2, null);
    pen.fillStyle = ink.soft;
    pen.font = WORDS;
    pen.textAlign = 'right';
    pen.textBaseline = 'middle';
    pen.fillText(channelLabel(project, lock.after.channel).full, from - 7, middle);
  }
  for (const x of [from, waits]) {
    pen.beginPath();
    pen.arc(x, middle, EYE, 0, Math.PI * 2);
    pen.fillStyle = ink.sheet;
    pen.fill();
    pen.stroke();
  }
}

/** A line straight up or down; a torn one has a piece missing in its middle. */
function upright(
  pen: CanvasRenderingContext2D,
  x: number,
  from: number,
  to: number,
  torn: string | null,
): void {
  pen.save();
  if (torn !== null) {
    pen.strokeStyle = torn;
    pen.setLineDash([4, 3]);
  }
  pen.beginPath();
  pen.moveTo(x, from);
  pen.lineTo(x, to);
  pen.stroke();
  pen.restore();
}

function drawGap(
  pen: CanvasRenderingContext2D,
  { plot, ink }: ThreadScene,
  { lock }: ThreadRow,
  { due, spare, holds }: InterlockStanding,
  { from, waits, middle }: Ends,
): void {
  const end = xOf(plot, due!);
  const [left, right] = [Math.min(from, end), Math.max(from, end)];
  if (lock.muted) {
    pen.strokeStyle = ink.soft;
    pen.strokeRect(left, middle - HALF, right - left, HALF * 2);
  } else {
    pen.fillStyle = ink.ink;
    pen.fillRect(left, middle - HALF, right - left, HALF * 2);
  }
  if (holds && spare! > 0) sag(pen, end, waits, middle);
  const bad = !holds && !lock.muted;
  if (bad) {
    pen.fillStyle = ink.warn;
    pen.fillRect(Math.min(waits, end), middle - HALF, Math.abs(end - waits), HALF * 2);
    pen.fillRect(end - 1, middle - 6, 2, 12);
  }
  drawWords(pen, plot, ink, {
    x: Math.max(end, waits) + 8,
    middle,
    text: bad
      ? `${shownFrame(Math.abs(spare!))} f ${spare! < 0 ? 'missing' : 'late'}`
      : spare! > 0.0005
        ? `${shownFrame(spare!)} f to spare`
        : 'met',
    bad,
    muted: lock.muted,
  });
  if (lock.gap === 0 || right - left < 26) return;
  pen.font = MONO;
  pen.textAlign = 'center';
  pen.textBaseline = 'bottom';
  pen.fillStyle = lock.muted ? ink.soft : ink.ink;
  pen.fillText(`${shownFrame(lock.gap)} f`, (left + right) / 2, middle - HALF);
}

function sag(pen: CanvasRenderingContext2D, from: number, to: number, middle: number): void {
  const deep = Math.min(DEEPEST, (to - from) / SAG_EVERY);
  pen.beginPath();
  pen.moveTo(from, middle);
  pen.quadraticCurveTo((from + to) / 2, middle + deep * 2, to, middle);
  pen.stroke();
}

interface Words {
  readonly x: number;
  readonly middle: number;
  readonly text: string;
  readonly bad: boolean;
  readonly muted: boolean;
}

function drawWords(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  { x, middle, text, bad, muted }: Words,
): void {
  if (muted) return;
  pen.font = WORDS;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  const width = pen.measureText(text).width;
  const at = Math.max(8, Math.min(x, plot.width - width - 14));
  if (bad) {
    pen.fillStyle = ink.warn;
    pen.fillRect(at, middle - 8, width + 12, 16);
  }
  pen.fillStyle = bad ? ink.sheet : ink.ok;
  pen.fillText(text, at + (bad ? 6 : 0), middle + 1);
}

/** A key that waits for what never comes. */
function drawNever(pen: CanvasRenderingContext2D, ink: Ink, x: number, top: number, middle: number): void {
  pen.strokeStyle = ink.warn;
  pen.beginPath();
  pen.arc(x, middle, EYE, 0, Math.PI * 2);
  pen.moveTo(x, middle - EYE);
  pen.lineTo(x, top);
  pen.stroke();
  pen.font = WORDS;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  pen.fillStyle = ink.warn;
  pen.fillText('never comes in this shot', x + 9, middle + 1);
}
