import '@angular/compiler';
import { changePart, curveOf, setLeg, setSideMode, type Project, curveRates } from '@kaizen/core';
import { chartProject, programOf } from '../../../testing/chart-project';
import { NAMED_INK as ink, recordingPen } from '../../../testing/recording-pen';
import { channelLabel } from '../../stage/channel-label';
import { drawBreach, drawLimit, drawRate, limitText } from './draw-rates';
import type { HitScene } from '../../chart/draggable';
import { hitChart } from '../../chart/hit';
import { layPlot, layStrips, xOf, yOf, type Order } from '../plot';
import { initialBench } from '../../../state/bench';

const RUN = 'wagon/translate.x';
const ref = (frame: number) => ({ channel: RUN, frame });
const trapezoid = () =>
  setLeg(chartProject(), [ref(0)], { kind: 'law', law: 'trapezoid', accelerate: 0.25, decelerate: 0.25 });
const linesOf = (project: Project, from = 0, to = 48, step = 1) => {
  const program = programOf(project);
  const compiled = program.curveAt(program.structure.slots.get(RUN)!)!;
  return curveRates(curveOf(project, RUN)!, compiled, from, to, step, 1 / 24);
};
const plotOf = (orders: readonly Order[], ranges: ReadonlyMap<string, { low: number; high: number }>) => {
  const channels = [{ channel: RUN, label: channelLabel(chartProject(), RUN) }];
  return layPlot({ first: 0, last: 48 }, 480, 400, layStrips(channels, ranges, 400, 24, orders));
};

describe('strips of rates', () => {
  it('lie under the values, each with its unit per second', () => {
    const { strips } = plotOf([0, 1, 2, 3], new Map());
    expect(strips.map(({ unit, order }) => [unit, order])).toEqual([
      ['m', 0],
      ['m/s', 1],
      ['m/s²', 2],
      ['m/s³', 3],
    ]);
    for (let i = 1; i < 4; i++)
      expect(strips[i]!.top).toBeCloseTo(strips[i - 1]!.top + strips[i - 1]!.height, 9);
  });

  it('draw a jump of speed as a dotted step, and as a point in the acceleration', () => {
    const straight = setSideMode(chartProject(), [ref(0)], 'out', 'linear');
    const jump = setLeg(setSideMode(straight, [ref(24)], 'in', 'linear'), [ref(24)], { kind: 'hold' });
    const ranges = new Map([
      ['m/s', { low: -1, high: 5 }],
      ['m/s²', { low: -5, high: 5 }],
    ]);
    const plot = plotOf([0, 1, 2], ranges);
    const [, speed, acceleration] = plot.strips;
    const drawn = (strip: typeof speed) => {
      const { pen, strokes } = recordingPen();
      drawRate(pen, plot, ink, strip!, linesOf(jump), { color: 'x', keys: { first: 0, last: 48 } });
      return strokes;
    };
    const dotted = drawn(speed).filter(({ method }) => method === 'setLineDash');
    expect(dotted.length).toBeGreaterThan(0);
    const diamonds = drawn(acceleration).filter(({ method }) => method === 'closePath');
    expect(diamonds.length).toBeGreaterThanOrEqual(1);
  });

  it('have a band within the part’s limits, and vermilion where it is broken', () => {
    const limits = { speed: 2, acceleration: null };
    const limited = changePart(trapezoid(), 'wagon', (part) => ({
      ...part,
      limits: { 'translate.x': limits },
    }));
    const plot = plotOf([0, 1], new Map([['m/s', { low: -4, high: 4 }]]));
    const strip = plot.strips[1]!;
    const { pen, strokes } = recordingPen();
    const own = limited.parts.find(({ id }) => id === 'wagon')!.limits['translate.x'];
    drawLimit(pen, plot, ink, strip, own);
    const band = strokes.find(({ method }) => method === 'fillRect')!.args as number[];
    expect(band[1]).toBeCloseTo(yOf(strip, 2), 6);
    expect(band[1]! + band[3]!).toBeCloseTo(yOf(strip, -2), 6);
    expect(limitText(strip, own)).toBe('limit 2.00 m/s');
    expect(limitText({ ...strip, order: 2 }, own)).toBeNull();
    const colours: string[] = [];
    drawBreach(pen, plot, ink, strip, own, (color) => colours.push(color));
    expect(colours).toEqual(['warn', 'warn']);
    drawBreach(pen, plot, ink, strip, undefined, (color) => colours.push(color));
    expect(colours).toHaveLength(2);
  });
});

describe('what can be taken hold of in the speed', () => {
  const scene = (project: Project): HitScene => ({
    plot: plotOf([0, 1], new Map([['m/s', { low: -4, high: 4 }]])),
    project,
    program: programOf(project),
    bench: initialBench,
    rows: [],
    scrollTop: 0,
  });

  it('are found under the pointer: a ramp’s end, the cruise between, else the ground', () => {
    const at = (frame: number, speed: number) => {
      const made = scene(trapezoid());
      const strip = made.plot.strips[1]!;
      return hitChart(made, xOf(made.plot, frame), yOf(strip, speed));
    };
    const cruise = 2 / 0.75;
    expect(at(6, cruise)).toMatchObject({ kind: 'speed', mark: { kind: 'ramp', which: 'accelerate' } });
    expect(at(12, cruise)).toMatchObject({ kind: 'cruise', cruise: { ref: ref(0) } });
    expect(at(24, 0)).toMatchObject({ kind: 'speed', mark: { kind: 'key', ref: ref(24) } });
    expect(at(12, -2)).toMatchObject({ kind: 'ground' });
  });
});
