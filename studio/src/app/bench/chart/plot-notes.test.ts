import '@angular/compiler';
import { curveOf, setLeg, setOutside, type Project } from '@kaizen/core';
import { initialBench } from '../../state/bench';
import { chartProject, programOf } from '../../testing/chart-project';
import { NAMED_INK as ink, recordingPen } from '../../testing/recording-pen';
import { channelLabel } from '../stage/channel-label';
import { channelLine, channelRateLine } from '../plot/chart-lines';
import { drawCurves } from './draw-curves';
import { layPlot, layStrips, RULER, xOf, type Order } from '../plot/plot';
import { breachNote, gapNotes, legNotes } from '../plot/plot-notes';

const RUN = 'wagon/translate.x';
const ORDERS: readonly Order[] = [0, 1, 2];
const ref = (frame: number) => ({ channel: RUN, frame });
const view = { axis: { first: 0, last: 100 }, width: 1000 };

/** Hauled up by a trapezoid from f 0 to 24 and held until 48, for ever over again. */
function haul(): Project {
  const up = setLeg(chartProject(), [ref(0)], { kind: 'law', law: 'trapezoid', accelerate: 1 / 4 });
  return setOutside(setLeg(up, [ref(24)], { kind: 'hold' }), [RUN], 'after', { mode: 'loop' });
}
const lineOf = (project: Project) => channelRateLine(view, programOf(project), project, RUN)!;
const strip = (order: Order) => ({ order, ...[M, MS, MSS][order]! });
const [M, MS, MSS] = ['m', 'm/s', 'm/s²'].map((unit) => ({ unit, told: unit }));

describe('the legs of a curve', () => {
  it('are told by name where they are no curves and in sight, the chosen one as such', () => {
    const curve = curveOf(haul(), RUN)!;
    expect(legNotes(curve, 0, 100, (frame) => frame === 24)).toEqual([
      { from: 0, to: 24, text: 'Law trapezoid', chosen: false },
      { from: 24, to: 48, text: 'Hold', chosen: true },
    ]);
    expect(legNotes(curve, 30, 100, () => false).map(({ text }) => text)).toEqual(['Hold']);
    const eased = setLeg(haul(), [ref(0)], { kind: 'ease', family: 'back', slow: 'end' });
    expect(legNotes(curveOf(eased, RUN)!, 0, 10, () => false)[0]!.text).toBe('Ease back, slow end');
    expect(legNotes(curveOf(chartProject(), RUN)!, 0, 100, () => true)).toEqual([]);
  });
});

describe('the gaps at a seam', () => {
  it('are those of value, speed and acceleration, from where the strip draws them', () => {
    const project = haul();
    const gaps = ORDERS.map((order) =>
      gapNotes(project, programOf(project), RUN, strip(order), lineOf(project)),
    );
    const cruise = 2 / (1 - 7 / 24);
    expect(gaps.map(([gap]) => gap!.text)).toEqual([
      'gap −2.000',
      'gap 0',
      `gap +${(cruise / 0.25).toFixed(2)}`,
    ]);
    expect(gaps[0]).toEqual([expect.objectContaining({ frame: 48, before: 2, after: 0, closed: false })]);
    expect(gaps[1]![0]).toMatchObject({ before: 0, closed: true });
  });

  it('are none where nothing repeats', () => {
    const project = chartProject();
    expect(gapNotes(project, programOf(project), RUN, strip(0), lineOf(project))).toEqual([]);
  });
});

describe('a limit that is broken', () => {
  const line = lineOf(haul());
  const cruise = 2 / (1 - 7 / 24);

  it('is told by what breaks it most, where the plateau ends', () => {
    const breach = breachNote(line, strip(1), { speed: 2 }, 0, 40);
    expect(breach).toEqual({
      frame: expect.closeTo(16, 3),
      value: expect.closeTo(cruise, 9),
      text: '2.82 m/s',
    });
    const braking = breachNote(line, strip(2), { acceleration: 5 }, 10, 40)!;
    expect(braking.value).toBeCloseTo(-cruise * 3, 6);
    expect(braking.frame).toBeCloseTo(24, 3);
  });

  it('is none where the rate stays within, or no limit is set', () => {
    expect(breachNote(line, strip(1), { speed: 3 }, 0, 100)).toBeNull();
    expect(breachNote(line, strip(1), { speed: cruise }, 0, 100)).toBeNull();
    expect(breachNote(line, strip(1), { speed: 2 }, 30, 40)).toBeNull();
    expect(breachNote(line, strip(1), undefined, 0, 100)).toBeNull();
    expect(breachNote(line, strip(0), { min: 0, max: 1 }, 0, 100)).toBeNull();
  });
});

describe('what is written on the plot', () => {
  const written = (density: 'curves' | 'rates', last = 100) => {
    const project = haul();
    const program = programOf(project);
    const named = [{ channel: RUN, label: channelLabel(project, RUN) }];
    const orders = density === 'rates' ? ORDERS : ([0] as const);
    const plot = layPlot({ first: 0, last }, 1000, 400, layStrips(named, new Map(), 400, RULER, orders));
    const { pen, strokes } = recordingPen();
    drawCurves(pen, {
      plot,
      ink,
      project,
      program,
      bench: { ...initialBench, density },
      loose: [],
      polyline: (channel) => channelLine(view, program, project, channel),
      old: () => null,
      rates: (channel) => channelRateLine(view, program, project, channel),
      lane: null,
      beside: () => [],
      parted: ({ channels: front }) => ({ front, crowd: [] }),
      crowd: () => null,
    });
    return { plot, words: strokes.filter(({ method }) => method === 'fillText') };
  };

  it('are the legs in both densities, in the middle of theirs; gaps beside their seam in Rates', () => {
    const { plot, words } = written('rates');
    const texts = words.map(({ args }) => args[0]);
    expect(texts).toEqual(expect.arrayContaining(['Law trapezoid', 'Hold', 'gap −2.000', 'gap 0']));
    const hold = words.find(({ args }) => args[0] === 'Hold')!;
    expect(hold.args[1]).toBeCloseTo(xOf(plot, 36), 6);
    const gap = words.find(({ args }) => args[0] === 'gap −2.000')!;
    expect(gap.fill).toBe('caution');
    expect(gap.args[1]).toBeGreaterThan(xOf(plot, 48));
    const closed = words.find(({ args }) => args[0] === 'gap 0')!;
    expect(closed.fill).toBe('ok');
    const curves = written('curves').words.map(({ args }) => args[0]);
    expect(curves).toContain('Law trapezoid');
    expect(curves.some((text) => String(text).startsWith('gap'))).toBe(false);
  });

  it('leaves out names that do not fit their legs', () => {
    const texts = written('curves', 600).words.map(({ args }) => args[0]);
    expect(texts).not.toContain('Law trapezoid');
    expect(texts).not.toContain('Hold');
  });
});
