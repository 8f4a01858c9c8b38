import { curveOf, handlePlace, repeats, type Curve, type Program, type Project } from '@kaizen/core';
import type { BenchState } from '../../state/bench';
import type { LooseEdit } from '../../state/document';
import { MONO, WORDS, type Ink } from './ink';
import { drawOutsideGround } from './draw-ruler';
import { drawPin, drawSummaryPegs } from './pegs';
import { PEG_ROW, xOf, yOf, type Plot, type Strip } from './plot';
import type { Polyline } from './polyline';

/** What the plot needs to draw itself. */
export interface CurvesScene {
  readonly plot: Plot;
  readonly ink: Ink;
  readonly project: Project;
  readonly program: Program;
  readonly bench: BenchState;
  readonly loose: readonly LooseEdit[];
  /** Gives a channel drawn out; `old` the curve as it was before a drag. */
  polyline(channel: string): Polyline | null;
  old(channel: string): Polyline | null;
}

/** The density Curves: strips by unit with curves, keys and handles, and a row of summary pegs over them. */
export function drawCurves(pen: CanvasRenderingContext2D, scene: CurvesScene): void {
  const { plot, ink } = scene;
  const curves = plot.strips
    .flatMap((strip) => strip.channels)
    .flatMap((channel) => curveOf(scene.project, channel) ?? []);
  pen.fillStyle = ink.paper;
  pen.fillRect(0, plot.head, plot.width, PEG_ROW);
  drawSummaryPegs(pen, plot, ink, curves, plot.head, chosenFrames(scene.bench, curves));
  for (const strip of plot.strips) drawStrip(pen, scene, strip);
  pen.fillStyle = ink.rule;
  pen.fillRect(0, plot.head + PEG_ROW - 1, plot.width, 1);
}

function chosenFrames(bench: BenchState, curves: readonly Curve[]): ReadonlySet<number> {
  const shown = new Set(curves.map((curve) => curve.channel));
  return new Set(bench.keys.filter((key) => shown.has(key.channel)).map((key) => key.frame));
}

function drawStrip(pen: CanvasRenderingContext2D, scene: CurvesScene, strip: Strip): void {
  const { plot, ink, project } = scene;
  pen.save();
  pen.beginPath();
  pen.rect(0, strip.top, plot.width, strip.height);
  pen.clip();
  const keyed = strip.channels.flatMap((channel) => curveOf(project, channel)?.keys ?? []);
  if (keyed.length > 0) {
    const frames = keyed.map((key) => key.frame);
    drawOutsideGround(
      pen,
      plot,
      ink,
      { first: Math.min(...frames), last: Math.max(...frames) },
      strip.top,
      strip.height,
    );
  }
  drawValueGrid(pen, plot, ink, strip);
  for (const channel of strip.channels) {
    const old = scene.old(channel);
    if (old) strokeLine(pen, plot, strip, old, `${toneOf(scene, strip, channel)}59`, 1.6);
  }
  strip.channels.forEach((channel) => drawChannel(pen, scene, strip, channel));
  drawStripName(pen, scene, strip);
  pen.restore();
  pen.fillStyle = ink.rule;
  pen.fillRect(0, strip.top + strip.height - 1, plot.width, 1);
}

function toneOf(scene: CurvesScene, strip: Strip, channel: string): string {
  return scene.ink.tones[strip.labels[strip.channels.indexOf(channel)]?.tone ?? 'c'];
}

function drawStripName(pen: CanvasRenderingContext2D, { ink }: CurvesScene, strip: Strip): void {
  pen.font = `600 ${WORDS}`;
  pen.textAlign = 'left';
  pen.textBaseline = 'top';
  const [only] = strip.labels;
  const names = [...new Set(strip.labels.map((label) => label.short))];
  const text = names.length <= 3 ? names.join(', ') : `${names.length} channels`;
  const shown = strip.labels[0]?.unit ? `${text}, ${strip.unit}` : text;
  pen.fillStyle = `${ink.sheet}b0`;
  pen.fillRect(0, strip.top, pen.measureText(shown).width + 14, 18);
  pen.fillStyle = names.length === 1 && only ? ink.tones[only.tone] : ink.ink;
  pen.fillText(shown, 6, strip.top + 3);
}

/** A mark on the scale of values about every so many pixels. */
const PIXELS_A_MARK = 38;

/** Horizontal lines at round values, with their numbers; zero a little stronger. */
function drawValueGrid(pen: CanvasRenderingContext2D, plot: Plot, ink: Ink, strip: Strip): void {
  const marks = strip.height / PIXELS_A_MARK;
  const text = strip.scale.tickFormat(marks);
  pen.font = MONO;
  pen.textAlign = 'left';
  pen.textBaseline = 'bottom';
  for (const value of strip.scale.ticks(marks)) {
    const y = Math.round(yOf(strip, value)) + 0.5;
    pen.fillStyle = value === 0 ? ink.rule : ink.ruleSoft;
    pen.fillRect(0, y - 0.5, plot.width, 1);
    if (y < strip.top + 32) continue;
    pen.fillStyle = ink.soft;
    pen.fillText(text(value), 6, y - 1);
  }
}

function drawChannel(pen: CanvasRenderingContext2D, scene: CurvesScene, strip: Strip, channel: string): void {
  const { plot, project, program, ink } = scene;
  const line = scene.polyline(channel);
  if (!line) return;
  const curve = curveOf(project, channel);
  const tone = toneOf(scene, strip, channel);
  const slot = program.structure.slots.get(channel) ?? -1;
  const [first, last] = [curve?.keys[0], curve?.keys.at(-1)];
  if (program.isDriven(slot) || !curve || !first || !last) {
    pen.setLineDash([2, 4]);
    strokeLine(pen, plot, strip, line, tone, 1.6);
    pen.setLineDash([]);
    return;
  }
  pen.globalAlpha = curve.muted ? 0.4 : 1;
  const [a, b] = [xOf(plot, first.frame), xOf(plot, last.frame)];
  clipped(pen, strip, 0, a, () => strokeLine(pen, plot, strip, line, tone, 1.2));
  clipped(pen, strip, a, b, () => strokeLine(pen, plot, strip, line, tone, curve.locked ? 1.4 : 2.2));
  clipped(pen, strip, b, plot.width, () => strokeLine(pen, plot, strip, line, tone, 1.2));
  drawSeams(pen, scene, strip, curve);
  drawKeys(pen, scene, strip, curve, tone);
  drawLoose(pen, scene, strip, channel);
  pen.globalAlpha = 1;
  pen.fillStyle = ink.ink;
}

function clipped(
  pen: CanvasRenderingContext2D,
  strip: Strip,
  left: number,
  right: number,
  draw: () => void,
): void {
  if (right <= left) return;
  pen.save();
  pen.beginPath();
  pen.rect(left, strip.top, right - left, strip.height);
  pen.clip();
  draw();
  pen.restore();
}

function strokeLine(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  strip: Strip,
  line: Polyline,
  color: string,
  width: number,
): void {
  const { points } = line;
  const sx = plot.width / (plot.axis.last - plot.axis.first);
  const sy = -strip.height / (strip.high - strip.low);
  const bottom = strip.top + strip.height;
  pen.strokeStyle = color;
  pen.lineWidth = width;
  pen.lineJoin = 'round';
  pen.beginPath();
  for (let i = 0; i < points.length; i += 2) {
    const x = (points[i]! - plot.axis.first) * sx;
    const y = bottom + (points[i + 1]! - strip.low) * sy;
    if (i === 0) pen.moveTo(x, y);
    else pen.lineTo(x, y);
  }
  pen.stroke();
}

/** Where a loop starts again: a thin double line at each seam, and a mark at the pin. */
function drawSeams(
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
    for (let k = 1; k <= most; k++) {
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

function drawKeys(
  pen: CanvasRenderingContext2D,
  scene: CurvesScene,
  strip: Strip,
  curve: Curve,
  tone: string,
): void {
  const { plot, ink, bench, project } = scene;
  const chosen = new Set(bench.keys.filter((key) => key.channel === curve.channel).map((key) => key.frame));
  const handles = bench.handles.filter((handle) => handle.channel === curve.channel);
  curve.keys.forEach((key, i) => {
    const x = xOf(plot, key.frame);
    if (x < -200 || x > plot.width + 200) return;
    const y = yOf(strip, key.value);
    const mine = handles.filter((handle) => handle.frame === key.frame);
    if (chosen.has(key.frame) || mine.length > 0) {
      for (const side of ['in', 'out'] as const) {
        const end = handlePlace(project, curve, i, side);
        if (!end) continue;
        const filled = mine.some((handle) => handle.side === side);
        drawHandle(pen, ink, x, y, xOf(plot, end.frame), yOf(strip, end.value), filled);
      }
    }
    pen.beginPath();
    pen.arc(x, y, chosen.has(key.frame) ? 5 : 3.6, 0, Math.PI * 2);
    pen.fillStyle = chosen.has(key.frame) ? ink.select : ink.sheet;
    pen.strokeStyle = chosen.has(key.frame) ? ink.select : tone;
    pen.lineWidth = 1.6;
    pen.fill();
    pen.stroke();
    if (!Number.isInteger(key.frame)) drawOffFrame(pen, ink, x, y);
  });
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

/** A handle: a line and a small arrowhead that points back at its key. */
function drawHandle(
  pen: CanvasRenderingContext2D,
  ink: Ink,
  x: number,
  y: number,
  ex: number,
  ey: number,
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
