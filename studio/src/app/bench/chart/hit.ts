import { curveOf, spanOf, type Curve, type KeyRef } from '@kaizen/core';
import { chosenFrames } from '../plot/chosen';
import type { Box } from '../plot/chart-model';
import { markerBox, nameWidth } from '../ruler/draw-marks';
import { firstKeyFrom } from '../plot/pegs';
import {
  frameAt,
  MARKER_ROW,
  PEG_ROW,
  ROW,
  RULER,
  stripAt,
  valueStrips,
  xOf,
  yOf,
  type Plot,
} from '../plot/plot';
import { hitPlot } from './hit-plot';
import type { HitScene, Target } from './target';
import type { Row } from '../plot/rows';

const PEG_REACH = 6;
const STAKE_REACH = 7;
/** How far beside the outer chosen pegs the ends of a run stand, and how near the pointer must be. */
const RUN_AWAY = 13;
const RUN_REACH = 5;

export function hitChart(scene: HitScene, x: number, y: number): Target {
  if (y < RULER) return hitRuler(scene, x, y);
  if (y < scene.plot.head) return hitMarks(scene, x, y) ?? { kind: 'ruler' };
  return scene.bench.density === 'ticks' ? hitTicks(scene, x, y) : hitCurves(scene, x, y);
}

function hitRuler({ plot, project, bench }: HitScene, x: number, y: number): Target {
  const stake = bench.stakes.find(({ to }) => Math.abs(xOf(plot, to) - x) <= STAKE_REACH);
  if (stake) return { kind: 'stake', stake };
  if (y > RULER - 12) {
    const start = x - xOf(plot, project.range.start);
    const end = xOf(plot, project.range.end) - x;
    if (start >= -3 && start <= 10) return { kind: 'range', end: 'start' };
    if (end >= -3 && end <= 10) return { kind: 'range', end: 'end' };
  }
  return { kind: 'ruler' };
}

/** The markers and sounds that stand under the ruler; those drawn last lie on top. */
function hitMarks({ plot, project }: HitScene, x: number, y: number): Target | null {
  if (project.markers.length > 0 && y < RULER + MARKER_ROW) {
    const marker = project.markers.findLast((each) => {
      const { left, right } = markerBox(plot, each, nameWidth(each));
      return x >= left - 3 && x <= right + 3;
    });
    if (!marker) return null;
    const onStart = marker.end !== null && Math.abs(x - xOf(plot, marker.frame)) <= 4;
    const onEnd = marker.end !== null && Math.abs(x - xOf(plot, marker.end)) <= 4;
    return { kind: 'marker', marker, end: onEnd ? 'end' : onStart ? 'start' : 'whole' };
  }
  const sound = project.sounds.findLast((each) => x >= xOf(plot, each.start) - 3);
  return sound ? { kind: 'sound', sound } : null;
}

/** The outer ends of the chosen keys of a row, just beside its first and last one: dragged they scale the whole run. */
export function runEnds(
  plot: Plot,
  row: Row,
  chosen: ReadonlySet<number> | undefined,
): { readonly start: number; readonly end: number } | null {
  if (row.kind !== 'channel' || !chosen || chosen.size < 2) return null;
  const { first, last } = spanOf(chosen);
  return { start: xOf(plot, first) - RUN_AWAY, end: xOf(plot, last) + RUN_AWAY };
}

function hitRun({ plot, bench }: HitScene, row: Row, x: number): Target | null {
  const chosen = chosenFrames(bench.keys, row.id);
  const ends = runEnds(plot, row, chosen);
  if (!ends) return null;
  const { first, last } = spanOf(chosen);
  if (Math.abs(x - ends.end) <= RUN_REACH) return { kind: 'run', end: 'end', frame: last };
  if (Math.abs(x - ends.start) <= RUN_REACH) return { kind: 'run', end: 'start', frame: first };
  return null;
}

/** The place in the list of the row at a height of the canvas, in Ticks. */
export function rowAt({ plot, scrollTop }: Pick<HitScene, 'plot' | 'scrollTop'>, y: number): number {
  return Math.floor((y - plot.head + scrollTop) / ROW);
}

function hitTicks(scene: HitScene, x: number, y: number): Target {
  const { plot, rows } = scene;
  const row = rows[rowAt(scene, y)];
  if (!row) return { kind: 'ground', strip: null };
  const run = hitRun(scene, row, x);
  if (run) return run;
  const curves = curvesOfRow(row);
  const refs = keysNear(plot, curves, x);
  if (refs.length > 0) return { kind: 'keys', refs, strip: null };
  return row.kind === 'channel'
    ? { kind: 'curve', channel: row.id, strip: null }
    : { kind: 'ground', strip: null };
}

/** The curves whose keys a row's pegs are or stand for. */
export function curvesOfRow(row: Row): readonly Curve[] {
  if (row.kind !== 'channel') return row.curves;
  return row.curve ? [row.curve] : [];
}

/** All keys on the one frame nearest to a place, within reach. */
function keysNear(plot: Plot, curves: readonly Pick<Curve, 'channel' | 'keys'>[], x: number): KeyRef[] {
  let nearest = PEG_REACH;
  let frame: number | null = null;
  const [from, to] = [frameAt(plot, x - PEG_REACH), frameAt(plot, x + PEG_REACH)];
  for (const { keys } of curves) {
    for (let i = firstKeyFrom(keys, from); i < keys.length && keys[i]!.frame <= to; i++) {
      const distance = Math.abs(xOf(plot, keys[i]!.frame) - x);
      if (distance > nearest) continue;
      nearest = distance;
      frame = keys[i]!.frame;
    }
  }
  if (frame === null) return [];
  const found = frame;
  return curves.flatMap(({ channel, keys }) =>
    keys[firstKeyFrom(keys, found)]?.frame === found ? [{ channel, frame: found }] : [],
  );
}

function hitCurves(scene: HitScene, x: number, y: number): Target {
  const { plot, project } = scene;
  const strip = stripAt(plot, y) ?? null;
  if (y < plot.head + PEG_ROW) {
    const curves = valueStrips(plot)
      .flatMap((each) => each.channels)
      .flatMap((channel) => curveOf(project, channel) ?? []);
    const refs = keysNear(plot, curves, x);
    return refs.length > 0 ? { kind: 'keys', refs, strip: null } : { kind: 'ground', strip: null };
  }
  return strip ? hitPlot(scene, strip, x, y) : { kind: 'ground', strip };
}

/** The keys inside a box of the canvas, and the shown handles' ends. */
export function keysInBox({ plot, project, bench, rows, scrollTop }: HitScene, box: Box): KeyRef[] {
  const inside = (x: number, y: number) => x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
  if (bench.density === 'ticks') {
    const first = Math.max(0, Math.floor((box.top - plot.head + scrollTop) / ROW));
    return rows.slice(first, Math.ceil((box.bottom - plot.head + scrollTop) / ROW)).flatMap((row, i) => {
      const y = plot.head + (first + i) * ROW - scrollTop + ROW / 2;
      if (row.kind !== 'channel' || !row.curve) return [];
      return row.curve.keys.flatMap((key) =>
        inside(xOf(plot, key.frame), y) ? [{ channel: row.id, frame: key.frame }] : [],
      );
    });
  }
  return valueStrips(plot).flatMap((strip) =>
    strip.channels.flatMap((channel) =>
      (curveOf(project, channel)?.keys ?? []).flatMap((key) =>
        inside(xOf(plot, key.frame), yOf(strip, key.value)) ? [{ channel, frame: key.frame }] : [],
      ),
    ),
  );
}
