import '@angular/compiler';
import { curveOf, setOutside, type Project } from '@kaizen/core';
import { initialBench, type BenchState } from '../../state/bench';
import { chartProject, programOf } from '../../testing/chart-project';
import { NAMED_INK as ink, recordingPen, type Stroke } from '../../testing/recording-pen';
import { channelLabel } from '../stage/channel-label';
import { channelLine, channelRateLine } from '../plot/chart-lines';
import { drawCurves } from './draw-curves';
import { namedStrips } from './curves-shown';
import { drawOverlay } from './draw-overlay';
import { layPlot, layStrips, PEG_ROW, RULER, xOf, yOf, type Order, type Plot } from '../plot/plot';
import { boxEdges, boxGrips, keyBox } from './draggable/scale-box';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const ref = (frame: number) => ({ channel: RUN, frame });

function plotOf(project: Project, channels: readonly string[], orders: readonly Order[] = [0]): Plot {
  const named = channels.map((channel) => ({ channel, label: channelLabel(project, channel) }));
  const ranges = new Map([
    ['m', { low: -1, high: 9 }],
    ['m/s', { low: -4, high: 4 }],
  ]);
  return layPlot({ first: 0, last: 100 }, 1000, 400, layStrips(named, ranges, 400, RULER, orders));
}

function drawn(
  project: Project,
  channels: readonly string[],
  bench: Partial<BenchState> = {},
  orders: readonly Order[] = [0],
): { readonly strokes: Stroke[]; readonly plot: Plot } {
  const { pen, strokes } = recordingPen();
  const plot = plotOf(project, channels, orders);
  const program = programOf(project);
  const view = { axis: plot.axis, width: plot.width };
  drawCurves(pen, {
    plot,
    ink,
    project,
    program,
    bench: { ...initialBench, ...bench },
    loose: [],
    polyline: (channel) => channelLine(view, program, project, channel),
    old: () => null,
    rates: (channel) => channelRateLine(view, program, project, channel),
    lane: null,
    beside: () => [],
    parted: ({ channels: front }) => ({ front, crowd: [] }),
    crowd: () => null,
  });
  return { strokes, plot };
}

/** Places where something of a method was drawn, rounded to pixels. */
const places = (strokes: readonly Stroke[], method: string) =>
  strokes
    .filter((stroke) => stroke.method === method)
    .map(({ args }) => (args as number[]).slice(0, 2).map((pixel) => Math.round(pixel)));
const words = (strokes: readonly Stroke[]) =>
  strokes.filter(({ method }) => method === 'fillText').map(({ args }) => String(args[0]));

describe('the drawing of curves', () => {
  it('has a dot on every key, a chosen one filled with handles on both sides', () => {
    const { strokes, plot } = drawn(chartProject(), [RUN], { keys: [ref(24)] });
    const [strip] = plot.strips;
    const dot = (frame: number, value: number) => [
      Math.round(xOf(plot, frame)),
      Math.round(yOf(strip!, value)),
    ];
    expect(places(strokes, 'moveTo')).toEqual(expect.arrayContaining([dot(0, 0), dot(48, 4)]));
    expect(places(strokes, 'arc')).toEqual([dot(24, 2)]);
    const ends = strokes
      .filter(({ method }) => method === 'translate')
      .map(({ args }) => Math.round(Number(args[0])));
    expect(ends).toEqual([160, 320]);
  });

  it('shows repeated keys as ghosts where they are, and none where nothing repeats', () => {
    const looping = setOutside(chartProject(), [RUN], 'after', { mode: 'loop-carry' });
    const { strokes, plot } = drawn(looping, [RUN]);
    const [strip] = plot.strips;
    const ghosts = [
      [720, yOf(strip!, 6)],
      [960, yOf(strip!, 8)],
    ].map((place) => place.map((pixel) => Math.round(pixel)));
    expect(places(strokes, 'arc')).toEqual(ghosts);
    expect(places(drawn(chartProject(), [RUN]).strokes, 'arc')).toEqual([]);
  });

  it('says how many curves lie on each other, and draws them in turns', () => {
    const project = chartProject();
    const run = curveOf(project, RUN)!;
    const clip = project.clips[0]!;
    const alike = { ...project, clips: [{ ...clip, curves: [run, { ...run, channel: LIFT }] }] };
    const { strokes } = drawn(alike, [RUN, LIFT]);
    expect(words(strokes)).toContain('2 curves lie on each other; click again for the next');
    expect(
      strokes.filter(({ method, args }) => method === 'setLineDash' && (args[0] as number[]).length === 2),
    ).toHaveLength(2);
    expect(words(drawn(project, [RUN, LIFT]).strokes).some((text) => text.includes('lie on'))).toBe(false);
  });

  it('says once in a plot what to do about curves that lie on each other', () => {
    const project = chartProject();
    const clip = project.clips[0]!;
    const run = curveOf(project, RUN)!;
    const turns = ['wagon/rotate.y', 'hook/rotate.y'];
    const curves = [RUN, LIFT, ...turns].map((channel) => ({ ...run, channel }));
    const { strokes } = drawn({ ...project, clips: [{ ...clip, curves }] }, [RUN, LIFT, ...turns]);
    expect(words(strokes).filter((text) => text.includes('lie on'))).toEqual([
      '2 curves lie on each other; click again for the next',
      '2 curves lie on each other',
    ]);
  });

  it('names the strips of rates by their units, under the pegs', () => {
    const { strokes, plot } = drawn(chartProject(), [RUN], {}, [0, 1]);
    expect(plot.strips[0]!.top).toBe(RULER + PEG_ROW);
    expect(words(strokes)).toEqual(expect.arrayContaining(['place X, m', 'm/s']));
  });
});

describe('what lies over the curves', () => {
  it('are the box with its eight grips, and the numbers at the playhead where they are in sight', () => {
    const project = chartProject();
    const plot = plotOf(project, [RUN], [0, 1]);
    const [strip, speed] = plot.strips;
    const keys = [ref(0), ref(24)];
    const box = keyBox(project, strip!, keys)!;
    const boxes = [{ edges: boxEdges(plot, strip!, box), grips: boxGrips(plot, strip!, project, keys) }];
    const tags = [
      { strip: strip!, value: 2, text: '2.000' },
      { strip: speed!, value: 99, text: '99.00' },
    ];
    const { pen, strokes } = recordingPen();
    drawOverlay(pen, plot, ink, 24, null, { capture: false, affected: null, stakes: [], boxes, tags });
    const grips = strokes.filter(
      ({ method, args }) => method === 'fillRect' && args[2] === 8 && args[3] === 8,
    );
    expect(grips).toHaveLength(8);
    expect(words(strokes)).toEqual(['24', '2.000']);
  });

  it('leaves the names of strips clear where the playhead crosses them', () => {
    const plot = plotOf(chartProject(), [RUN], [0, 1]);
    const pieces = (frame: number) => {
      const { pen, strokes } = recordingPen();
      const time = {
        capture: false,
        affected: null,
        stakes: [],
        named: namedStrips(chartProject(), plot, 'rates'),
      };
      drawOverlay(pen, plot, ink, frame, null, time);
      return strokes.flatMap(({ method, args }) =>
        method === 'fillRect' && args[2] === 2 ? [[args[1], Number(args[1]) + Number(args[3])]] : [],
      );
    };
    const [{ top } = { top: 0 }, { top: second } = { top: 0 }] = plot.strips;
    expect(pieces(plot.axis.first)).toEqual([
      [0, top],
      [top + 18, second],
      [second + 18, plot.height],
    ]);
    expect(pieces(plot.axis.last)).toEqual([[0, plot.height]]);
  });
});
