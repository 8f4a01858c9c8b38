import { compile, curveOf, curvePolyline, sampleStep } from '@kaizen/core';
import { channelLabel } from '../../studio/src/app/bench/stage/channel-label';
import { Crowds, partStrip } from '../../studio/src/app/bench/plot/crowd/crowds';
import { drawCurves } from '../../studio/src/app/bench/chart/draw-curves';
import { layPlot, layStrips } from '../../studio/src/app/bench/plot/plot';
import { initialBench } from '../../studio/src/app/state/bench';
import { keyedProject } from './keyed-project';
import { measure, type Result } from './measure';
import { BLACK_INK } from './silent-pen';

const PROPERTIES = ['translate.x', 'translate.y', 'translate.z', 'rotate.x', 'rotate.y', 'rotate.z'];
const KEYS = 40;
const LAST = 480;
const WIDTH = 1000;
const RANGES = new Map([
  ['m', { low: 0, high: 3 }],
  ['°', { low: 0, high: 3 }],
]);

/** The Chart with every curve of a project drawn, nothing chosen; `until` waits for a crowd to be whole. */
function chartOf(parts: number, pen: CanvasRenderingContext2D) {
  const frames = Array.from({ length: KEYS }, (_, i) => i * (LAST / KEYS));
  const project = keyedProject(parts, PROPERTIES, LAST, () => frames);
  const compiled = compile(project);
  if (!compiled.ok) throw new Error('does not compile');
  const program = compiled.value;
  const named = project.clips[0]!.curves.map(({ channel }) => ({
    channel,
    label: channelLabel(project, channel),
  }));
  const strips = layStrips(named, RANGES, 600);
  const parted = new Map(strips.map((strip) => [strip, partStrip(strip.channels, () => false)]));
  const crowds = new Crowds();
  let step = 0;
  const draw = () => {
    step = (step + 1) % 40;
    const plot = layPlot({ first: step, last: step + LAST }, WIDTH, 600, strips);
    pen.reset();
    drawCurves(pen, {
      plot,
      ink: BLACK_INK,
      project,
      program,
      bench: initialBench,
      loose: [],
      polyline: (channel) =>
        curveOf(project, channel)
          ? curvePolyline(
              program.curveAt(program.structure.slots.get(channel)!)!,
              plot.axis.first,
              plot.axis.last,
              sampleStep(LAST / WIDTH),
            )
          : null,
      old: () => null,
      rates: () => null,
      lane: null,
      beside: () => [],
      parted: (strip) => parted.get(strip)!,
      crowd: (strip) => crowds.image(plot, BLACK_INK, strip, parted.get(strip)!.crowd, program),
    });
  };
  return { draw, crowds };
}

/** All curves drawn while time is panned, on a real canvas. The crowd's picture has grown by then, as polylines have been made. */
export async function allCurves(pen: CanvasRenderingContext2D): Promise<Result[]> {
  const [few, many] = [chartOf(4, pen), chartOf(1000, pen)];
  many.draw();
  for (let shown = -1; shown !== many.crowds.grown();) {
    shown = many.crowds.grown();
    await new Promise((done) => setTimeout(done, 1500));
    many.draw();
  }
  const [drawFew, drawMany] = measure([
    { name: '24', run: few.draw },
    { name: '6,000', run: many.draw },
  ]) as [number, number];
  return [
    {
      what: `Curves: drawing all 6,000 curves of 240,000 keys while panning (${drawMany.toFixed(2)} ms of script), against drawing 24 of 960 (${drawFew.toFixed(2)} ms)`,
      measured: `${(drawMany / drawFew).toFixed(2)} times the cost`,
      wanted: 'at most 3',
      good: drawMany / drawFew <= 3,
    },
  ];
}
