import fc from 'fast-check';
import type { Jet } from '../law';
import { hiddenCorners } from './hidden-corners';

/** The corners of a function sampled every so many frames between stops, just inside of them. */
function cornersOf(jet: (frame: number) => Jet, stops: readonly number[], step: number) {
  const pieces = stops.slice(1).map((end, i) => {
    const [start, count] = [stops[i]!, Math.ceil((end - stops[i]!) / step)];
    return Array.from({ length: count + 1 }, (_, k) => {
      const frame = Math.min(end - 1e-5, start + 1e-5 + (k * (end - start)) / count);
      return { frame, jet: jet(frame) };
    });
  });
  return hiddenCorners(jet, pieces);
}

const TURN = (2 * Math.PI) / 24;

/** A sine of 24 frames. */
function sine(frame: number): Jet {
  const [s, c] = [Math.sin(TURN * frame), Math.cos(TURN * frame)];
  return [s, TURN * c, -(TURN ** 2) * s, -(TURN ** 3) * c];
}

/** The sine kept below a height. */
const below =
  (height: number) =>
  (frame: number): Jet =>
    sine(frame)[0] >= height ? [height, 0, 0, 0] : sine(frame);

describe('corners that nothing tells', () => {
  it('of a clamped sine are where it meets the clamp: asin h and its mirror', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.8, max: 0.95, noNaN: true }), (height) => {
        fc.pre(Math.abs(height) > 1e-3);
        const rise = Math.asin(height) / TURN;
        const expected = [rise, 12 - rise, rise + 24, 36 - rise].filter((frame) => frame > 0 && frame < 36);
        const found = cornersOf(below(height), [0, 36], 0.5);
        expect(found.map((frame) => Math.round(frame * 1e4))).toEqual(
          expected.map((frame) => Math.round(frame * 1e4)),
        );
      }),
    );
  });

  it('of a smooth function are none, however coarse the step', () => {
    for (const step of [0.25, 1, 3, 8]) expect(cornersOf(sine, [0, 5, 48], step)).toEqual([]);
  });

  it('are not looked for in the rounding of a straight line, nor in what differences leave', () => {
    let asked = 0;
    const unrest = (frame: number) => Math.sin(frame * 1e7);
    const straight = (frame: number): Jet => {
      asked++;
      return [7 + 0.3 * frame, 0.3 * (1 + 1e-15 * unrest(frame)), 1e-8 * unrest(frame + 0.5), 0];
    };
    expect(cornersOf(straight, [0, 500], 0.5)).toEqual([]);
    expect(asked).toBe(1001);
  });

  it('of a function that jumps, bends, or whose acceleration steps are found alike, each once', () => {
    const laid: Jet[] = [
      [1, 0, 0, 0],
      [0, 1, 0, 0],
      [0, 0, 1, 0],
    ];
    for (const [v, d1, d2] of laid) {
      const function_ = (frame: number): Jet => {
        const x = frame - 7.3;
        return x < 0 ? [0, 0, 0, 0] : [v + d1 * x + (d2 * x * x) / 2, d1 + d2 * x, d2, 0];
      };
      expect(cornersOf(function_, [0, 12], 0.5)).toEqual([expect.closeTo(7.3, 6)]);
    }
  });

  it('of a course finer than every sample are given up soon', () => {
    let asked = 0;
    const fine = 2 * Math.PI * 1e8;
    const noisy = (frame: number): Jet => {
      asked++;
      const [s, c] = [Math.sin(fine * frame), Math.cos(fine * frame)];
      return [s, fine * c, -(fine ** 2) * s, -(fine ** 3) * c];
    };
    const { length } = cornersOf(noisy, [0, 500], 0.5);
    expect(length).toBeLessThanOrEqual(64 * 7);
    expect(asked).toBeLessThan(1001 + 64 * 7 * 30);
  });

  it('are not looked for where a rate is not finite', () => {
    const root = (frame: number): Jet => [Math.sqrt(frame), 0.5 / Math.sqrt(frame), Number.NaN, Number.NaN];
    expect(cornersOf(root, [0, 10], 0.5)).toEqual([]);
  });
});
