import { handlePlace, repeatedKeys, repeats, type Curve, type HandleRef } from '@kaizen/core';
import { chosenFrames } from '../plot/chosen';
import type { CurvesScene } from './curves-scene';
import type { Ink } from '../plot/ink';
import { drawPin, firstKeyFrom } from '../plot/pegs';
import { xOf, yOf, type Strip } from '../plot/plot';

/** A channel's keys with what belongs to them: seams and pins of its loop, ghosts of repeated keys, handles, loose edits. */
export function drawKeysOf(
  pen: CanvasRenderingContext2D,
  scene: CurvesScene,
  strip: Strip,
  curve: Curve,
  tone: string,
): void {
  if (repeats(curve.before.mode) || repeats(curve.after.mode)) {
    drawSeams(pen, scene, strip, curve);
    drawRepeated(pen, scene, strip, curve, tone);
  }
  drawKeys(pen, scene, strip, curve, tone);
  if (scene.loose.length > 0) drawLoose(pen, scene, strip, curve.channel);
}

/** Where a loop starts again: a thin double line at each seam, and a mark at the pin. */
export function drawSeams(
  pen: CanvasRenderingContext2D,
  { plot, ink }: CurvesScene,
  strip: Strip,
  curve: Curve,
): void {
  const [first, last] = [curve.keys[0]!.frame, curve.keys.at(-1)!.frame];
  pen.fillStyle = ink.soft;
  const seams = (from: number, period: number, count: number | null) => {
    if (period === 0 || (Math.abs(period) / (plot.axis.last - plot.axis.first)) * plot.width < 8) return;
    const most = count ?? Infinity;
    for (let k = 0; k <= most; k++) {
      const frame = from + k * period;
      if (period > 0 ? frame > plot.axis.last : frame < plot.axis.first) return;
      const x = Math.round(xOf(plot, frame));
      pen.fillRect(x - 1.5, strip.top, 0.9, strip.height);
      pen.fillRect(x + 1.5, strip.top, 0.9, strip.height);
    }
  };
  if (repeats(curve.after.mode)) seams(last, last - (curve.after.pin ?? first), curve.after.count);
  if (repeats(curve.before.mode)) seams(first, first - (curve.before.pin ?? last), curve.before.count);
  pen.fillStyle = ink.ink;
  for (const pin of [curve.after.pin, curve.before.pin])
    if (pin !== null) drawPin(pen, xOf(plot, pin), strip.top);
}

/** The keys that a loop repeats, as pale ghosts: clicked they lead to the key that they repeat. */
function drawRepeated(
  pen: CanvasRenderingContext2D,
  { plot, ink }: CurvesScene,
  strip: Strip,
  curve: Curve,
  tone: string,
): void {
  pen.strokeStyle = `${tone}80`;
  pen.fillStyle = ink.sheet;
  pen.lineWidth = 1.2;
  for (const { frame, value } of repeatedKeys(curve, plot.axis.first, plot.axis.last)) {
    pen.beginPath();
    pen.arc(xOf(plot, frame), yOf(strip, value), 3, 0, Math.PI * 2);
    pen.fill();
    pen.stroke();
  }
}

function drawKeys(
  pen: CanvasRenderingContext2D,
  scene: CurvesScene,
  strip: Strip,
  curve: Curve,
  tone: string,
): void {
  const { plot, ink, bench } = scene;
  const chosen = chosenFrames(bench.keys, curve.channel);
  const handles = bench.handles.filter((handle) => handle.channel === curve.channel);
  const open = new Set(handles.map(({ frame }) => frame));
  const sx = plot.width / (plot.axis.last - plot.axis.first);
  const sy = -strip.height / (strip.high - strip.low);
  const bottom = strip.top + strip.height;
  const marked: number[] = [];
  pen.lineCap = 'round';
  pen.beginPath();
  const { keys } = curve;
  let [px, py] = [-Infinity, 0];
  for (let i = firstKeyFrom(keys, plot.axis.first - BESIDE / sx); i < keys.length; i++) {
    const { frame, value } = keys[i]!;
    const x = (frame - plot.axis.first) * sx;
    if (x > plot.width + BESIDE) break;
    const y = bottom + (value - strip.low) * sy;
    const isChosen = chosen.has(frame);
    const onLast = x - px < 1 && Math.abs(y - py) < 1;
    if (isChosen || open.has(frame) || (!onLast && !Number.isInteger(frame))) marked.push(i);
    if (isChosen || onLast) continue;
    dot(pen, x, y);
    [px, py] = [x, y];
  }
  ring(pen, tone, ink.sheet);
  for (const i of marked) {
    const key = curve.keys[i]!;
    const [x, y] = [xOf(plot, key.frame), yOf(strip, key.value)];
    const isChosen = chosen.has(key.frame);
    const mine = handles.filter(({ frame }) => frame === key.frame);
    if (isChosen || mine.length > 0) drawHandles(pen, scene, strip, curve, i, mine);
    if (isChosen) {
      pen.fillStyle = ink.select;
      pen.beginPath();
      pen.arc(x, y, 5.6, 0, Math.PI * 2);
      pen.fill();
    }
    if (!Number.isInteger(key.frame)) drawOffFrame(pen, ink, x, y);
  }
}

/** So far beside the plot, in pixels, keys count: their handles may reach into it. */
const BESIDE = 200;

/** A place for a dot: next to no line, whose round ends are the dot. Cheaper by far than an arc, and keys are many. */
function dot(pen: CanvasRenderingContext2D, x: number, y: number): void {
  pen.moveTo(x, y);
  pen.lineTo(x + 0.01, y);
}

/** Draws the dots of the path as rings. */
function ring(pen: CanvasRenderingContext2D, color: string, inner: string): void {
  pen.strokeStyle = color;
  pen.lineWidth = 8.8;
  pen.stroke();
  pen.strokeStyle = inner;
  pen.lineWidth = 5.6;
  pen.stroke();
  pen.lineCap = 'butt';
}

/** Both handles of a key; those that are chosen by themselves are filled. */
function drawHandles(
  pen: CanvasRenderingContext2D,
  { plot, ink, project }: CurvesScene,
  strip: Strip,
  curve: Curve,
  index: number,
  chosen: readonly HandleRef[],
): void {
  const key = curve.keys[index]!;
  for (const side of ['in', 'out'] as const) {
    const end = handlePlace(project, curve, index, side);
    if (!end) continue;
    const filled = chosen.some((handle) => handle.side === side);
    const from = { x: xOf(plot, key.frame), y: yOf(strip, key.value) };
    drawHandle(pen, ink, from, { x: xOf(plot, end.frame), y: yOf(strip, end.value) }, filled);
  }
}

/** A key off the whole frame: a leaning stroke through its dot. */
function drawOffFrame(pen: CanvasRenderingContext2D, ink: Ink, x: number, y: number): void {
  pen.strokeStyle = ink.ink;
  pen.lineWidth = 1.2;
  pen.beginPath();
  pen.moveTo(x - 4, y + 9);
  pen.lineTo(x + 4, y - 9);
  pen.stroke();
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** A handle: a line and a small arrowhead that points back at its key. */
function drawHandle(
  pen: CanvasRenderingContext2D,
  ink: Ink,
  { x, y }: Place,
  { x: ex, y: ey }: Place,
  filled: boolean,
): void {
  const angle = Math.atan2(y - ey, x - ex);
  pen.strokeStyle = ink.select;
  pen.lineWidth = 1.2;
  pen.beginPath();
  pen.moveTo(x, y);
  pen.lineTo(ex, ey);
  pen.stroke();
  pen.save();
  pen.translate(ex, ey);
  pen.rotate(angle);
  pen.beginPath();
  pen.moveTo(6, 0);
  pen.lineTo(-5, -5);
  pen.lineTo(-5, 5);
  pen.closePath();
  pen.fillStyle = filled ? ink.select : ink.sheet;
  pen.fill();
  pen.stroke();
  pen.restore();
}

function drawLoose(
  pen: CanvasRenderingContext2D,
  { plot, ink, loose }: CurvesScene,
  strip: Strip,
  channel: string,
): void {
  pen.strokeStyle = ink.loose;
  pen.lineWidth = 1.4;
  pen.setLineDash([3, 2]);
  for (const edit of loose) {
    if (edit.channel !== channel) continue;
    pen.beginPath();
    pen.arc(xOf(plot, edit.frame), yOf(strip, edit.value), 5, 0, Math.PI * 2);
    pen.stroke();
  }
  pen.setLineDash([]);
}
