import {
  compile,
  curveOf,
  type HandleRef,
  type Program,
  type Project,
  curvePolyline,
  sampleStep,
  type Polyline,
} from '@kaizen/core';
import { channelLabel } from '../../studio/src/app/bench/stage/channel-label';
import { drawCurves } from '../../studio/src/app/bench/chart/draw-curves';
import { draggedHandles } from '../../studio/src/app/bench/chart/draggable/key-drag';
import { layPlot, layStrips, type Plot } from '../../studio/src/app/bench/plot/plot';
import { initialBench, type BenchState } from '../../studio/src/app/state/bench';
import { keyedProject } from './keyed-project';
import { measure, type Result } from './measure';
import { BLACK_INK } from './silent-pen';

const SHOWN = 24;
const KEYS = 24;
const LAST = 480;
const PROPERTIES = ['translate.x', 'translate.y', 'translate.z', 'rotate.x'];
const WIDTH = 1000;
const RANGES = new Map([
  ['m', { low: 0, high: 3 }],
  ['°', { low: 0, high: 3 }],
]);

/** A project of so many curves, and what the Chart needs to draw the first 24 of them. */
function chartOf(curves: number, pen: CanvasRenderingContext2D) {
  const frames = Array.from({ length: KEYS }, (_, i) => i * (LAST / KEYS));
  const project = keyedProject(curves / PROPERTIES.length, PROPERTIES, LAST, () => frames);
  const channels = project.clips[0]!.curves.slice(0, SHOWN).map(({ channel }) => channel);
  const labels = channels.map((channel) => ({ channel, label: channelLabel(project, channel) }));
  const strips = layStrips(labels, RANGES, 600);
  const compiled = compile(project);
  if (!compiled.ok) throw new Error('does not compile');
  const handle: HandleRef = { channel: channels[5]!, frame: frames[8]!, side: 'out' };
  const bench: BenchState = { ...initialBench, handles: [handle] };
  const lineOf = (program: Program, channel: string, plot: Plot): Polyline => {
    const curve = program.curveAt(program.structure.slots.get(channel)!)!;
    const { first, last } = plot.axis;
    return curvePolyline(curve, first, last, sampleStep((last - first) / WIDTH));
  };
  const draw = (of: Project, program: Program, plot: Plot) => {
    pen.reset();
    drawCurves(pen, {
      plot,
      ink: BLACK_INK,
      project: of,
      program,
      bench,
      loose: [],
      polyline: (channel) => lineOf(program, channel, plot),
      old: (channel) =>
        of === project || channel !== handle.channel ? null : lineOf(compiled.value, channel, plot),
      rates: () => null,
      lane: null,
      beside: () => [],
      parted: ({ channels: front }) => ({ front, crowd: [] }),
      crowd: () => null,
    });
  };
  const plotAt = (first: number) => layPlot({ first, last: first + LAST }, WIDTH, 600, strips);
  let step = 0;
  const still = plotAt(0);
  return {
    /** A step of a drag: the edit, what is made anew, and the drawing. */
    drag: () => {
      step = (step + 1) % 7;
      const next = draggedHandles(project, [handle], { frames: step / 7, value: step / 20 });
      const shown = compile(next, { previous: compiled.value });
      if (!shown.ok || !curveOf(next, handle.channel)) throw new Error('does not compile');
      draw(next, shown.value, still);
    },
    /** A step of panning: the same curves a little farther. */
    pan: () => {
      step = (step + 1) % 200;
      draw(project, compiled.value, plotAt(step));
    },
    /** The same polylines, as far as they are in sight, with nothing else drawn. */
    bare: () => {
      step = (step + 1) % 200;
      const plot = plotAt(step);
      pen.reset();
      for (const strip of plot.strips)
        for (const channel of strip.channels)
          strokeBare(pen, plot, strip, lineOf(compiled.value, channel, plot));
    },
  };
}

function strokeBare(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  strip: Plot['strips'][number],
  { points }: Polyline,
): void {
  const sx = plot.width / (plot.axis.last - plot.axis.first);
  const sy = -strip.height / (strip.high - strip.low);
  const bottom = strip.top + strip.height;
  let i = 0;
  while (i < points.length && points[i]! < plot.axis.first) i += 2;
  pen.strokeStyle = '#000000';
  pen.lineWidth = 2.2;
  pen.lineJoin = 'round';
  pen.beginPath();
  pen.moveTo((points[i]! - plot.axis.first) * sx, bottom + (points[i + 1]! - strip.low) * sy);
  for (i += 2; i < points.length && points[i]! <= plot.axis.last; i += 2)
    pen.lineTo((points[i]! - plot.axis.first) * sx, bottom + (points[i + 1]! - strip.low) * sy);
  pen.stroke();
}

/** On a real canvas of a page. Each step begins with an empty canvas, so that what counts is the script and not the painting. */
export function chartCurves(pen: CanvasRenderingContext2D): Result[] {
  const [few, many, panned] = [chartOf(SHOWN, pen), chartOf(2000, pen), chartOf(2000, pen)];
  const [dragFew, dragMany, pan, bare] = measure([
    { name: 'drag 24', run: few.drag },
    { name: 'drag 2,000', run: many.drag },
    { name: 'pan', run: panned.pan },
    { name: 'bare', run: panned.bare },
  ]) as [number, number, number, number];
  return [
    {
      what: `Curves: a step of dragging a handle with 2,000 curves in the project and 24 shown (${dragMany.toFixed(2)} ms of script), against 24 in all (${dragFew.toFixed(2)} ms)`,
      measured: `${(dragMany / dragFew).toFixed(2)} times the cost`,
      wanted: 'at most 1.3',
      good: dragMany / dragFew <= 1.3,
    },
    {
      what: `Curves: a step of panning 24 curves of 2,000 (${pan.toFixed(2)} ms of script), against the same polylines bare on the same canvas (${bare.toFixed(2)} ms)`,
      measured: `${(pan / bare).toFixed(2)} times the cost`,
      wanted: 'at most 1.5',
      good: pan / bare <= 1.5,
    },
  ];
}
