import { curveOf, type Limit, pointAfter, type Polyline, speedMarks, thinnedPoints } from '@kaizen/core';
import { chosenFrames } from '../plot/chosen';
import { MONO, WORDS, type Ink } from '../plot/ink';
import { drawOutsideGround } from './draw-ruler';
import { chosenAmong, curvesShown, keysSpan, limitsOf } from './curves-shown';
import type { CurvesScene } from './curves-scene';
import { drawStripName, drawValueGrid } from './draw-strip';
import { drawKeysOf, drawSeams } from './draw-keys';
import { drawNotes } from './draw-notes';
import { drawSummaryPegs } from '../plot/pegs';
import { coincidingGroups } from '../plot/coinciding';
import { PEG_ROW, xOf, yOf, type Plot, type Strip } from '../plot/plot';
import {
  drawBreach,
  drawLimit,
  drawRate,
  drawSpeedMarks,
  keySpan,
  limitText,
} from '../plot/rates/draw-rates';

/** The density Curves: strips by unit with curves, keys and handles, and a row of summary pegs over them. */
export function drawCurves(pen: CanvasRenderingContext2D, scene: CurvesScene): void {
  const { plot, ink } = scene;
  const curves = curvesShown(scene);
  pen.fillStyle = ink.paper;
  pen.fillRect(0, plot.head, plot.width, PEG_ROW);
  drawSummaryPegs(pen, plot, ink, curves, plot.head, chosenAmong(scene.bench, curves));
  for (const strip of plot.strips) drawStrip(pen, scene, strip);
  pen.fillStyle = ink.rule;
  pen.fillRect(0, plot.head + PEG_ROW - 1, plot.width, 1);
}

function drawStrip(pen: CanvasRenderingContext2D, scene: CurvesScene, strip: Strip): void {
  const { plot, ink, project } = scene;
  pen.save();
  pen.beginPath();
  pen.rect(0, strip.top, plot.width, strip.height);
  pen.clip();
  const span = keysSpan(project, strip);
  if (span) drawOutsideGround(pen, plot, ink, span, strip.top, strip.height);
  const limits = limitsOf(project, strip);
  drawLimit(pen, plot, ink, strip, limits);
  drawValueGrid(pen, plot, ink, strip);
  if (strip.order === 0) drawValues(pen, scene, strip);
  else drawRates(pen, scene, strip, limits);
  drawStripName(pen, scene, strip, limitText(strip, limits));
  drawNotes(pen, scene, strip, limits);
  pen.restore();
  pen.fillStyle = ink.rule;
  pen.fillRect(0, strip.top + strip.height - 1, plot.width, 1);
}

function drawValues(pen: CanvasRenderingContext2D, scene: CurvesScene, strip: Strip): void {
  const { plot, ink } = scene;
  const { front, crowd } = scene.parted(strip);
  if (crowd.length > 0) drawCrowd(pen, scene, strip);
  for (const channel of front) {
    const tone = toneOf(scene, strip, channel);
    const old = scene.old(channel);
    if (old) strokeLine(pen, plot, strip, old, { color: `${tone}59`, width: 1.6 });
    const lines = scene.beside(channel);
    if (lines.length === 0) continue;
    pen.setLineDash([5, 3]);
    for (const line of lines) strokeLine(pen, plot, strip, line, { color: `${tone}99`, width: 1.3 });
    pen.setLineDash([]);
  }
  const { lane } = scene;
  if (lane && front.includes(lane.channel))
    fillBetween(pen, plot, strip, lane.into, lane.out, `${ink.select}42`);
  const groups = groupsOf(scene, strip);
  for (const channel of front) {
    const group = groups.get(channel);
    drawChannel(pen, scene, strip, channel, group ? interleaved(group, channel) : []);
  }
  if (groups.size === 0) return;
  const firstOfPlot = plot.strips.find((other) => other.order === 0 && groupsOf(scene, other).size > 0);
  drawCounts(pen, scene, strip, groups, firstOfPlot === strip);
}

/** The channels of a strip that lie on others, each with the group it is of. */
function groupsOf(scene: CurvesScene, strip: Strip): ReadonlyMap<string, readonly string[]> {
  return coincidingGroups(strip, scene.parted(strip).front, (channel) => scene.polyline(channel));
}

/** The picture of all curves that are not drawn one by one, put where it belongs in time and value. */
function drawCrowd(pen: CanvasRenderingContext2D, scene: CurvesScene, strip: Strip): void {
  const image = scene.crowd(strip);
  if (!image) return;
  const { from, step, columns, low, high } = image.window;
  const [left, right] = [xOf(scene.plot, from), xOf(scene.plot, from + step * columns)];
  const [top, bottom] = [yOf(strip, high), yOf(strip, low)];
  pen.imageSmoothingEnabled = false;
  pen.drawImage(image.canvas, left, top, right - left, bottom - top);
}

/** Curves that lie on each other take turns along the line, each for so many pixels. */
const TURN = 14;

function interleaved(group: readonly string[], channel: string): readonly number[] {
  return [TURN, TURN * (group.length - 1), -TURN * group.indexOf(channel)];
}

/** How many curves lie on each other, in the strip's far corner; what to do about it is said once in a plot. */
function drawCounts(
  pen: CanvasRenderingContext2D,
  { plot, ink }: CurvesScene,
  strip: Strip,
  groups: ReadonlyMap<string, readonly string[]>,
  saysHow: boolean,
): void {
  const each = [...new Set(groups.values())];
  pen.font = MONO;
  pen.textAlign = 'right';
  pen.textBaseline = 'bottom';
  each.forEach((group, i) => {
    const count = `${group.length} curves lie on each other`;
    const text = saysHow && i === 0 ? `${count}; click again for the next` : count;
    const [right, y] = [plot.width - 12, strip.top + strip.height - 6 - i * 18];
    const width = pen.measureText(text).width + 12;
    pen.fillStyle = ink.sheet;
    pen.fillRect(right + 6 - width, y - 15, width, 17);
    pen.fillStyle = ink.ink;
    pen.fillText(text, right, y);
  });
}

function drawRates(
  pen: CanvasRenderingContext2D,
  scene: CurvesScene,
  strip: Strip,
  limits: Limit | undefined,
): void {
  const { plot, ink, project, bench } = scene;
  const { front, crowd } = scene.parted(strip);
  if (crowd.length > 0) drawAsk(pen, ink, strip, crowd.length);
  for (const channel of front) {
    const line = scene.rates(channel);
    if (!line) continue;
    const color = toneOf(scene, strip, channel);
    const keys = keySpan(project, channel);
    drawRate(pen, plot, ink, strip, line, { color, keys });
    drawBreach(pen, plot, ink, strip, limits, (warn) =>
      drawRate(pen, plot, ink, strip, line, { color: warn, keys }),
    );
    const curve = curveOf(project, channel);
    if (curve && curve.keys.length > 1) drawSeams(pen, scene, strip, curve);
    if (!curve || curve.locked || strip.order !== 1) continue;
    const chosen = chosenFrames(bench.keys, channel);
    const marks = speedMarks(project, curve, (frame) => chosen.has(frame));
    drawSpeedMarks(pen, plot, ink, strip, marks, color);
  }
}

/** Rates of a crowd say nothing: which are drawn is the user's to choose. */
function drawAsk(pen: CanvasRenderingContext2D, ink: Ink, strip: Strip, count: number): void {
  pen.font = WORDS;
  pen.textAlign = 'center';
  pen.textBaseline = 'middle';
  pen.fillStyle = ink.soft;
  const text = `${count} channels more: choose some in the rows to see their rates`;
  pen.fillText(text, 280, strip.top + strip.height - 14);
}

function toneOf(scene: CurvesScene, strip: Strip, channel: string): string {
  return scene.ink.tones[strip.labels[strip.channels.indexOf(channel)]?.tone ?? 'c'];
}

function drawChannel(
  pen: CanvasRenderingContext2D,
  scene: CurvesScene,
  strip: Strip,
  channel: string,
  turns: readonly number[],
): void {
  const { plot, project, program, ink } = scene;
  const line = scene.polyline(channel);
  if (!line) return;
  const curve = curveOf(project, channel);
  const tone = toneOf(scene, strip, channel);
  const slot = program.structure.slots.get(channel) ?? -1;
  const [first, last] = [curve?.keys[0], curve?.keys.at(-1)];
  if (program.isDriven(slot) || !curve || !first || !last) {
    pen.setLineDash([2, 4]);
    strokeLine(pen, plot, strip, line, { color: tone, width: 1.6 });
    pen.setLineDash([]);
    return;
  }
  pen.globalAlpha = curve.muted ? 0.4 : 1;
  if (turns.length > 0) {
    pen.setLineDash(turns.slice(0, 2));
    pen.lineDashOffset = turns[2]!;
  }
  const thin = { color: tone, width: 1.2 };
  strokeLine(pen, plot, strip, line, { ...thin, to: first.frame });
  const width = curve.locked ? 1.4 : 2.2;
  strokeLine(pen, plot, strip, line, { color: tone, width, from: first.frame, to: last.frame });
  strokeLine(pen, plot, strip, line, { ...thin, from: last.frame });
  if (turns.length > 0) {
    pen.setLineDash([]);
    pen.lineDashOffset = 0;
  }
  drawKeysOf(pen, scene, strip, curve, tone);
  pen.globalAlpha = 1;
  pen.fillStyle = ink.ink;
}

/** The ground between two lines, as far as the plot shows them. */
function fillBetween(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  strip: Strip,
  a: Polyline,
  b: Polyline,
  color: string,
): void {
  const trace = ({ points }: Polyline, backwards: boolean) => {
    const [first, last] = [
      Math.max(0, pointAfter(points, plot.axis.first) - 2),
      Math.min(points.length - 2, pointAfter(points, plot.axis.last)),
    ];
    const step = backwards ? -2 : 2;
    for (let i = backwards ? last : first; i >= first && i <= last; i += step)
      pen.lineTo(xOf(plot, points[i]!), yOf(strip, points[i + 1]!));
  };
  pen.beginPath();
  trace(a, false);
  trace(b, true);
  pen.fillStyle = color;
  pen.fill();
}

/** A power of two in value, at most an eighth of a pixel: so that small zooms take what is there. */
function unseen({ low, high, height }: Strip): number {
  return 2 ** Math.floor(Math.log2((high - low) / height / 8));
}

/** A line from one frame to another, as far as the plot shows them. */
function strokeLine(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  strip: Strip,
  line: Polyline,
  look: { readonly color: string; readonly width: number; readonly from?: number; readonly to?: number },
): void {
  const from = Math.max(plot.axis.first, look.from ?? -Infinity);
  const to = Math.min(plot.axis.last, look.to ?? Infinity);
  if (to <= from) return;
  const sx = plot.width / (plot.axis.last - plot.axis.first);
  const sy = -strip.height / (strip.high - strip.low);
  const bottom = strip.top + strip.height;
  const points = thinnedPoints(line, unseen(strip));
  pen.strokeStyle = look.color;
  pen.lineWidth = look.width;
  pen.lineJoin = 'round';
  pen.beginPath();
  const start = Math.max(0, pointAfter(points, from) - 2);
  const end = Math.min(points.length - 2, pointAfter(points, to));
  const cut = (at: number): readonly [number, number] => {
    const [frame, value] = [points[at]!, points[at + 1]!];
    if (frame >= from && frame <= to) return [frame, value];
    const [a, b] = frame < from ? [at, at + 2] : [at - 2, at];
    const edge = frame < from ? from : to;
    const share = (edge - points[a]!) / (points[b]! - points[a]! || 1);
    return [edge, points[a + 1]! + (points[b + 1]! - points[a + 1]!) * share];
  };
  const [firstFrame, firstValue] = cut(start);
  pen.moveTo((firstFrame - plot.axis.first) * sx, bottom + (firstValue - strip.low) * sy);
  for (let i = start + 2; i < end; i += 2)
    pen.lineTo((points[i]! - plot.axis.first) * sx, bottom + (points[i + 1]! - strip.low) * sy);
  if (end > start) {
    const [lastFrame, lastValue] = cut(end);
    pen.lineTo((lastFrame - plot.axis.first) * sx, bottom + (lastValue - strip.low) * sy);
  }
  pen.stroke();
}
