import fc from 'fast-check';
import { channelLabel } from '../stage/channel-label';
import { frameAt, layPlot, layStrips, roomyRange, stripAt, valueAt, xOf, yOf, PLOT_TOP } from './plot';
import { chartProject } from '../../testing/chart-project';
import { fitAxis, panAxis, rulerStep, zoomAxis } from './time-axis';

const project = chartProject();
const channels = ['wagon/translate.x', 'wheel/rotate.z', 'hook/translate.y'].map((channel) => ({
  channel,
  label: channelLabel(project, channel),
}));
const ranges = new Map([['m', { low: -1, high: 5 }]]);
const height = PLOT_TOP + 400;
const plot = layPlot({ first: -10, last: 110 }, 600, height, layStrips(channels, ranges, height));

describe('the plot', () => {
  it('has a strip a unit, with its own scale, in the order the channels come', () => {
    expect(
      plot.strips.map(({ unit, channels: own, top, height }) => [unit, own.length, top, height]),
    ).toEqual([
      ['m', 2, PLOT_TOP, 200],
      ['°', 1, PLOT_TOP + 200, 200],
    ]);
    expect(stripAt(plot, PLOT_TOP + 399)).toBe(plot.strips[1]);
    expect(stripAt(plot, PLOT_TOP - 1)).toBeUndefined();
  });

  it('tells units as they are read: none where a value has none, 1/s for its rates', () => {
    const size = { channel: 'wagon/scale.x', label: channelLabel(project, 'wagon/scale.x') };
    const strips = layStrips([channels[0]!, size], ranges, height, 24, [0, 1, 2]);
    expect(strips.map(({ told }) => told)).toEqual(['m', 'm/s', 'm/s²', '', '1/s', '1/s²']);
    expect(new Set(strips.map(({ unit }) => unit)).size).toBe(6);
  });

  it('goes from frames and values to pixels and back', () => {
    const [strip] = plot.strips;
    fc.assert(
      fc.property(
        fc.double({ min: -1e3, max: 1e3, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        (frame, value) => {
          expect(frameAt(plot, xOf(plot, frame))).toBeCloseTo(frame, 8);
          expect(valueAt(strip!, yOf(strip!, value))).toBeCloseTo(value, 8);
        },
      ),
    );
    expect([xOf(plot, -10), xOf(plot, 110)]).toEqual([0, 600]);
    expect([yOf(strip!, 5), yOf(strip!, -1)]).toEqual([PLOT_TOP, PLOT_TOP + 200]);
  });

  it('gives a flat curve some height', () => {
    expect(roomyRange(3, 3, 'm')).toEqual({ low: 2.9, high: 3.1 });
    expect(roomyRange(Infinity, -Infinity, '°')).toEqual({ low: -1, high: 1 });
    const { low, high } = roomyRange(0, 10, '°');
    expect(low).toBeLessThan(0);
    expect(high).toBeGreaterThan(10);
  });
});

describe('the time axis', () => {
  const axis = { first: 0, last: 100 };

  it('zooms about a frame that stays where it is', () => {
    expect(zoomAxis(axis, 25, 2)).toEqual({ first: 12.5, last: 62.5 });
    const back = zoomAxis(zoomAxis(axis, 30, 3), 30, 1 / 3);
    expect(back.first).toBeCloseTo(0, 10);
    expect(back.last).toBeCloseTo(100, 10);
    expect(zoomAxis(axis, 50, 1e9).last - zoomAxis(axis, 50, 1e9).first).toBeCloseTo(0.5, 10);
  });

  it('pans and fits', () => {
    expect(panAxis(axis, -5)).toEqual({ first: -5, last: 95 });
    expect(fitAxis(0, 240)).toEqual({ first: expect.closeTo(-24, 10), last: expect.closeTo(254.4, 10) });
  });

  it('marks frames that stay readable: whole ones, then halves of seconds', () => {
    expect(rulerStep({ first: 0, last: 10 }, 600, 24, 56)).toBe(1);
    expect(rulerStep({ first: 0, last: 240 }, 700, 24, 56)).toBe(24);
    expect(rulerStep({ first: 0, last: 24 * 60 }, 700, 24, 56)).toBe(192);
  });
});
