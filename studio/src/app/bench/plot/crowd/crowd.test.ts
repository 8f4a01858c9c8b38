import '@angular/compiler';
import fc from 'fast-check';
import { CrowdGrid, crowdPixels, type CrowdCurve } from './crowd-grid';
import { MOST_BY_ONE, partStrip } from './crowds';

const WINDOW = { from: 0, step: 1, columns: 12, rows: 10, low: 0, high: 10 };
const line = (slope: number, start: number): CrowdCurve => ({
  value: (frame) => start + slope * frame,
  keyFrames: new Float64Array([0, 12]),
});
const filled = (grid: CrowdGrid) => [...grid.counts].filter((count) => count > 0).length;

describe('a crowd of curves on a grid', () => {
  it('passes each column of what it crosses, in one piece from the row it enters to the row it leaves', () => {
    const grid = new CrowdGrid(WINDOW);
    grid.add(line(0, 5.5), 1);
    expect(Array.from(grid.counts.slice(4 * 12, 5 * 12))).toEqual(Array(12).fill(1));
    expect(filled(grid)).toBe(12);
    const steep = new CrowdGrid(WINDOW);
    steep.add(line(3, 0.5), 1);
    const columns = Array.from({ length: 3 }, (_, column) =>
      Array.from({ length: 10 }, (__, row) => steep.counts[row * 12 + column]!).reduce((a, b) => a + b),
    );
    expect(columns).toEqual([4, 4, 4]);
  });

  it('shows a key that stands between two columns’ edges', () => {
    const grid = new CrowdGrid(WINDOW);
    const peak = {
      value: (frame: number) => (frame === 3.5 ? 9.5 : 0.5),
      keyFrames: new Float64Array([3.5]),
    };
    grid.add(peak, 1);
    expect(grid.counts[3]).toBe(1);
    expect(grid.counts[4]).toBe(0);
  });

  it('is what it was when a curve that was added is taken away again', () => {
    const curve = fc.record({
      slope: fc.double({ min: -9, max: 9, noNaN: true }),
      start: fc.integer({ min: -5, max: 15 }),
    });
    fc.assert(
      fc.property(fc.array(curve, { minLength: 1, maxLength: 6 }), (curves) => {
        const grid = new CrowdGrid(WINDOW);
        const [first, ...others] = curves.map(({ slope, start }) => line(slope, start));
        for (const each of others) grid.add(each, 1);
        const before = grid.counts.slice();
        grid.add(first!, 1);
        grid.add(first!, -1);
        expect(grid.counts).toEqual(before);
      }),
    );
  });

  it('leaves out what lies above or below, and what has no value', () => {
    const grid = new CrowdGrid(WINDOW);
    for (const start of [-3, 14, Number.NaN]) grid.add(line(0, start), 1);
    expect(filled(grid)).toBe(0);
  });

  it('is the stronger the more curves pass a cell', () => {
    const out = new Uint8ClampedArray(16);
    crowdPixels(Uint16Array.from([0, 1, 60, 5000]), [1, 2, 3], out);
    const [none, one, many, most] = [out[3]!, out[7]!, out[11]!, out[15]!];
    expect(none).toBe(0);
    expect(one).toBeGreaterThan(40);
    expect(many).toBeGreaterThan(one);
    expect(most).toBeGreaterThanOrEqual(many);
    expect([...out.slice(4, 7)]).toEqual([1, 2, 3]);
  });
});

describe('the channels of a strip', () => {
  const channels = Array.from({ length: MOST_BY_ONE + 2 }, (_, i) => `c${i}`);

  it('are all drawn one by one where they are few', () => {
    const few = channels.slice(0, MOST_BY_ONE);
    expect(partStrip(few, () => false)).toEqual({ front: few, crowd: [] });
  });

  it('are a crowd where they are many, but for those that are meant', () => {
    expect(partStrip(channels, (channel) => channel === 'c3')).toEqual({
      front: ['c3'],
      crowd: channels.filter((channel) => channel !== 'c3'),
    });
    expect(partStrip(channels, () => false).crowd).toBe(channels);
  });
});
