import { curveOf, type Curve, type Limit } from '@kaizen/core';
import { chosenFrames } from '../plot/chosen';
import type { CurvesScene } from './curves-scene';
import { drawTag, tagLook } from '../plot/draw-tag';
import { WORDS } from '../plot/ink';
import { xOf, yOf, type Strip } from '../plot/plot';
import { breachNote, gapNotes, legNotes } from '../plot/plot-notes';

/** Legs shorter than this, in pixels, are not named. */
const LEAST_NAMED = 46;

/** A tag whose middle is level with its place lies so much lower than one above it. */
const CENTRED = 14;

/** What is written on a strip that draws one channel: its legs by name, its gaps at a seam, what breaks its limit most. */
export function drawNotes(
  pen: CanvasRenderingContext2D,
  scene: CurvesScene,
  strip: Strip,
  limits: Limit | undefined,
): void {
  const [channel] = strip.channels;
  if (channel === undefined || strip.channels.length > 1) return;
  const { plot, ink, project, program, bench } = scene;
  const curve = curveOf(project, channel);
  if (curve && strip.order === 0) drawLegNames(pen, scene, strip, curve);
  if (bench.density !== 'rates') return;
  const line = scene.rates(channel);
  if (!line) return;
  const within = { top: strip.top, height: strip.height, width: plot.width };
  for (const gap of gapNotes(project, program, channel, strip, line)) {
    const x = xOf(plot, gap.frame);
    if (x < 0 || x > plot.width) continue;
    const look = tagLook(ink, gap.closed ? 'closed' : 'open');
    const [from, to] = [yOf(strip, gap.before), yOf(strip, gap.after)];
    pen.fillStyle = look.line;
    pen.fillRect(x - 3, Math.min(from, to) - 1, 6, 2);
    pen.fillRect(x - 3, Math.max(from, to) - 1, 6, 2);
    pen.fillRect(x - 1, Math.min(from, to), 2, Math.abs(to - from));
    drawTag(pen, { x: x + 2, y: to }, within, gap.text, look);
  }
  const breach = breachNote(line, strip, limits, plot.axis.first, plot.axis.last);
  if (breach)
    drawTag(
      pen,
      { x: xOf(plot, breach.frame), y: yOf(strip, breach.value) + CENTRED },
      within,
      breach.text,
      tagLook(ink, 'breach'),
    );
}

/** Along the foot of a strip the legs that are no curves, each a dimension line with its name; where it leaves the plot it has no end. */
function drawLegNames(
  pen: CanvasRenderingContext2D,
  { plot, ink, bench }: CurvesScene,
  strip: Strip,
  curve: Curve,
): void {
  const chosen = chosenFrames(bench.keys, curve.channel);
  const y = Math.round(strip.top + strip.height - 11) + 0.5;
  pen.textAlign = 'center';
  pen.textBaseline = 'middle';
  for (const leg of legNotes(curve, plot.axis.first, plot.axis.last, (frame) => chosen.has(frame))) {
    const [left, right] = [Math.max(0, xOf(plot, leg.from)) + 4, Math.min(plot.width, xOf(plot, leg.to)) - 4];
    if (right - left < LEAST_NAMED) continue;
    pen.font = leg.chosen ? `600 ${WORDS}` : WORDS;
    const width = pen.measureText(leg.text).width + 12;
    if (width > right - left - 12) continue;
    const middle = (left + right) / 2;
    pen.strokeStyle = leg.chosen ? ink.select : ink.soft;
    pen.lineWidth = 1;
    pen.beginPath();
    for (const [outer, inner] of [
      [left, middle - width / 2],
      [right, middle + width / 2],
    ] as const) {
      if (outer > 4 && outer < plot.width - 4) {
        pen.moveTo(outer, y - 4);
        pen.lineTo(outer, y + 4);
      }
      pen.moveTo(outer, y);
      pen.lineTo(inner, y);
    }
    pen.stroke();
    pen.fillStyle = leg.chosen ? ink.select : ink.soft;
    pen.fillText(leg.text, middle, y);
  }
}
