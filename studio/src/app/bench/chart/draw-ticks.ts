import { curveOf, type Curve, type Program, type Project } from '@kaizen/core';
import { chosenByChannel } from '../plot/chosen';
import { OUTSIDE_LABELS } from '../stage/words';
import { drivenBy } from '../stage/driven-by';
import type { BenchState } from '../../state/bench';
import { drawSides } from './draw-peg-sides';
import { drawOutsideGround } from './draw-ruler';
import { runEnds } from './draggable/run';
import { drawPeg, drawPin, drawSummaryPegs, firstKeyFrom, lean, pegShape } from '../plot/pegs';
import { WORDS, type Ink } from '../plot/ink';
import { ROW, xOf, type Plot } from '../plot/plot';
import { drawSpan } from './draw-span';
import { drawThread } from './draw-thread';
import type { ChannelRow, Row } from '../plot/rows';

export interface TicksScene {
  readonly plot: Plot;
  readonly ink: Ink;
  readonly project: Project;
  readonly bench: BenchState;
  readonly rows: readonly Row[];
  readonly scrollTop: number;
  /** Channels whose old pegs stay pale during a drag, and the project they are of. */
  readonly oldProject: Project | null;
  readonly oldChannels: readonly string[];
  /** What tells where constraints are not met; null while something is dragged, when that would take too long. */
  readonly program: Program | null;
}

/** The density Ticks: a row a channel with upright pegs, a row a part with the pegs that stand for all of its keys. */
export function drawTicks(pen: CanvasRenderingContext2D, scene: TicksScene): void {
  const { plot, ink, rows, scrollTop, project } = scene;
  pen.save();
  pen.beginPath();
  pen.rect(0, plot.head, plot.width, plot.height - plot.head);
  pen.clip();
  drawOutsideGround(
    pen,
    plot,
    ink,
    { first: project.range.start, last: project.range.end },
    plot.head,
    plot.height - plot.head,
  );
  const firstRow = Math.floor(scrollTop / ROW);
  const lastRow = Math.min(rows.length, Math.ceil((scrollTop + plot.height - plot.head) / ROW));
  const chosen = chosenByChannel(scene.bench.keys);
  for (let i = firstRow; i < lastRow; i++)
    drawRow(pen, scene, rows[i]!, plot.head + i * ROW - scrollTop, chosen);
  pen.restore();
}

type Chosen = ReadonlyMap<string, ReadonlySet<number>>;

function drawRow(
  pen: CanvasRenderingContext2D,
  scene: TicksScene,
  row: Row,
  top: number,
  chosen: Chosen,
): void {
  const { plot, ink, bench } = scene;
  if (row.kind === 'span') drawSpan(pen, scene, row, top);
  else if (row.kind === 'thread') drawThread(pen, scene, row, top);
  else if (row.kind !== 'channel') {
    pen.fillStyle = row.kind === 'part' ? `${ink.rule}66` : `${ink.rule}33`;
    pen.fillRect(0, top, plot.width, ROW);
    const frames = new Set(row.curves.flatMap((curve) => [...(chosen.get(curve.channel) ?? [])]));
    drawSummaryPegs(pen, plot, ink, row.curves, top, frames);
  } else {
    if (bench.channels.includes(row.id)) {
      pen.fillStyle = `${ink.selectGround}99`;
      pen.fillRect(0, top, plot.width, ROW);
    }
    drawChannelRow(pen, scene, row, top, chosen.get(row.id) ?? new Set());
  }
  pen.fillStyle = ink.rule;
  pen.fillRect(0, top + ROW - 1, plot.width, 1);
}

function drawChannelRow(
  pen: CanvasRenderingContext2D,
  scene: TicksScene,
  row: ChannelRow,
  top: number,
  chosen: ReadonlySet<number>,
): void {
  const { plot, ink } = scene;
  const middle = top + ROW / 2;
  if (row.driven) drawDriven(pen, scene, row, middle);
  const { curve } = row;
  if (scene.oldChannels.includes(row.id) && scene.oldProject) {
    const old = curveOf(scene.oldProject, row.id);
    pen.globalAlpha = 0.3;
    for (const key of old?.keys ?? []) drawPeg(pen, plot, ink.ink, key, middle, 4, 14);
    pen.globalAlpha = 1;
  }
  if (curve && curve.keys.length > 0) {
    pen.globalAlpha = curve.muted ? 0.4 : 1;
    drawHeldLegs(pen, plot, ink, curve, middle);
    drawOutside(pen, plot, ink, curve, middle);
    drawPegs(pen, plot, ink, curve, middle, chosen);
    for (const pin of [curve.after.pin, curve.before.pin]) {
      pen.fillStyle = ink.ink;
      if (pin !== null) drawPin(pen, xOf(plot, pin), top + 1);
    }
    const ends = runEnds(plot, row, chosen);
    if (ends) drawRunEnds(pen, ink, ends, middle);
    if (curve.locked) {
      pen.fillStyle = ink.soft;
      pen.fillRect(0, top + ROW - 4, plot.width, 2);
    }
    pen.globalAlpha = 1;
  }
  pen.strokeStyle = ink.loose;
  pen.setLineDash([3, 2]);
  for (const edit of row.loose) {
    pegShape(pen, Math.round(xOf(plot, edit.frame)) + 0.5, middle, 6, 16, lean(edit.frame));
    pen.stroke();
  }
  pen.setLineDash([]);
}

/** The pegs that show; those nearer than a pixel to the one before are one with it, and near ones have no strokes at their sides. */
function drawPegs(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  curve: Curve,
  middle: number,
  chosen: ReadonlySet<number>,
): void {
  const { keys } = curve;
  const frames = (BESIDE / plot.width) * (plot.axis.last - plot.axis.first);
  let before = -Infinity;
  for (let i = firstKeyFrom(keys, plot.axis.first - frames); i < keys.length; i++) {
    const key = keys[i]!;
    if (key.frame > plot.axis.last + frames) break;
    const x = xOf(plot, key.frame);
    const isChosen = chosen.has(key.frame);
    if (x - before < 1 && !isChosen) continue;
    const color = isChosen ? ink.select : ink.ink;
    if (x - before >= ROOM_FOR_SIDES) drawSides(pen, plot, color, curve, i, middle);
    drawPeg(pen, plot, color, key, middle, isChosen ? 6 : 4, isChosen ? 18 : 14);
    before = x;
  }
}

/** Pegs so many pixels beside the plot still reach into it. */
const BESIDE = 16;
const ROOM_FOR_SIDES = 4;

/** Small arrows outside the chosen pegs of a row: dragged they scale the run. */
function drawRunEnds(
  pen: CanvasRenderingContext2D,
  ink: Ink,
  { start, end }: { readonly start: number; readonly end: number },
  middle: number,
): void {
  pen.fillStyle = ink.select;
  for (const [x, way] of [
    [start, -1],
    [end, 1],
  ] as const) {
    pen.beginPath();
    pen.moveTo(x + way * 4, middle);
    pen.lineTo(x - way * 3, middle - 5);
    pen.lineTo(x - way * 3, middle + 5);
    pen.fill();
  }
}

function drawHeldLegs(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  curve: Curve,
  middle: number,
): void {
  const { keys } = curve;
  for (let i = Math.max(0, firstKeyFrom(keys, plot.axis.first) - 1); i < keys.length - 1; i++) {
    const [key, next] = [keys[i]!, keys[i + 1]!];
    if (key.frame > plot.axis.last) break;
    if (key.leg.kind !== 'hold') continue;
    const [a, b] = [xOf(plot, key.frame), xOf(plot, next.frame)];
    pen.fillStyle = ink.rule;
    pen.fillRect(a, middle - 4, b - a, 8);
    pen.fillStyle = ink.ink;
    pen.fillRect(a, middle + 3, b - a, 1);
  }
}

/** Outside the keys: its name, and the repeated keys as pale ghosts. */
function drawOutside(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  curve: Curve,
  middle: number,
): void {
  const first = curve.keys[0]!.frame;
  const last = curve.keys.at(-1)!.frame;
  pen.font = WORDS;
  pen.textBaseline = 'middle';
  pen.fillStyle = ink.soft;
  if (curve.after.mode !== 'hold') {
    pen.textAlign = 'left';
    pen.fillText(OUTSIDE_LABELS[curve.after.mode], xOf(plot, last) + 14, middle + 1);
  }
  if (curve.before.mode !== 'hold') {
    pen.textAlign = 'right';
    pen.fillText(OUTSIDE_LABELS[curve.before.mode], xOf(plot, first) - 14, middle + 1);
  }
  if (curve.after.pin !== null) {
    pen.textAlign = 'left';
    pen.fillText('lead-in, once', xOf(plot, first) + 14, middle + 1);
  }
  if (curve.after.mode !== 'loop' && curve.after.mode !== 'loop-carry') return;
  const start = curve.after.pin ?? first;
  const period = last - start;
  if (period <= 0 || xOf(plot, start + period) - xOf(plot, start) < 8) return;
  pen.globalAlpha = 0.3;
  const most = curve.after.count ?? Infinity;
  for (let k = 1; k <= most && start + k * period <= plot.axis.last; k++) {
    for (const key of curve.keys) {
      if (key.frame > start)
        drawPeg(pen, plot, ink.ink, { ...key, frame: key.frame + k * period }, middle, 4, 14);
    }
  }
  pen.globalAlpha = 1;
}

function drawDriven(
  pen: CanvasRenderingContext2D,
  { plot, ink, project }: TicksScene,
  row: ChannelRow,
  middle: number,
): void {
  const driver = project.drivers.find((candidate) => candidate.target === row.id && !candidate.muted);
  const text = driver ? drivenBy(project, driver) : 'driven';
  pen.font = WORDS;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  const x = Math.max(10, xOf(plot, project.range.start) + 10);
  const width = pen.measureText(text).width;
  pen.fillStyle = ink.soft;
  pen.fillText(text, x, middle + 1);
  pen.strokeStyle = ink.soft;
  pen.lineWidth = 1.4;
  pen.setLineDash([2, 4]);
  pen.beginPath();
  pen.moveTo(x + width + 8, middle);
  pen.lineTo(xOf(plot, project.range.end), middle);
  pen.stroke();
  pen.setLineDash([]);
}
