import fc from 'fast-check';
import {
  curvePolyline,
  drivenPolyline,
  pointAfter,
  polylineExtent,
  sampleStep,
  thinnedPoints,
  type Polyline,
} from './polyline';
import { moveKeys } from '../edit';
import { programOf, slotOf } from '../../testing/project';
import { RUN, wagonProject } from '../../testing/wagon';

const project = wagonProject();
const program = programOf(project);
const LIFT = 'hook/translate.y';
const curveOf = (channel: string, of = program) => of.curveAt(slotOf(of, channel));
const [run, lift] = [curveOf(RUN), curveOf(LIFT)];

describe('a curve drawn out', () => {
  it('has its keys exactly, and a hold’s jump as two points on one frame', () => {
    const { points } = curvePolyline(lift!, 0, 48, 5);
    const pairs = Array.from({ length: points.length / 2 }, (_, i) => [points[i * 2], points[i * 2 + 1]]);
    expect(pairs.filter(([frame]) => frame === 36)).toEqual([
      [36, 1],
      [36, 3],
    ]);
    expect(pairs.filter(([frame]) => frame === 12)).toEqual([[12, 1]]);
  });

  it('is the same object while the curve is, also when panned a little; another when the curve is', () => {
    const first = curvePolyline(run!, 0, 48, 0.5);
    expect(curvePolyline(run!, 10, 58, 0.5)).toBe(first);
    expect(curvePolyline(run!, 0, 48, 0.25)).not.toBe(first);
    const moved = programOf(
      moveKeys(project, [{ channel: LIFT, frame: 36 }], { frames: 1, value: 0 }).project,
    );
    expect(curveOf(RUN, moved)).toBe(run);
    expect(curveOf(LIFT, moved)).not.toBe(lift);
  });

  it('follows a driver where the channel has no curve', () => {
    const slot = program.structure.slots.get('wheel/rotate.z')!;
    const line = drivenPolyline(program, slot, 0, 48, 24);
    expect(Array.from(line.points)).toEqual([
      0,
      0,
      24,
      (2 / 0.5) * (180 / Math.PI),
      48,
      (4 / 0.5) * (180 / Math.PI),
    ]);
    expect(drivenPolyline(program, slot, 0, 48, 24)).toBe(line);
  });

  it('has an extent over the frames that show', () => {
    expect(polylineExtent(curvePolyline(run!, 0, 48, 0.5), 0, 24)).toEqual({ low: 0, high: 2 });
  });

  it('is sampled at a power of two, at most one and a half pixels apart', () => {
    for (const framesPerPixel of [0.01, 0.3, 1, 7]) {
      const step = sampleStep(framesPerPixel);
      expect(Number.isInteger(Math.log2(step))).toBe(true);
      expect(step / framesPerPixel).toBeLessThanOrEqual(1.5);
      expect(step / framesPerPixel).toBeGreaterThan(0.75);
    }
  });
});

/** A polyline through some pairs of frame and value. */
function lineOf(pairs: readonly (readonly [number, number])[]): Polyline {
  const points = Float64Array.from(pairs.flat());
  return { from: pairs[0]?.[0] ?? 0, to: pairs.at(-1)?.[0] ?? 0, step: 1, points };
}
const pairsOf = (points: Float64Array) =>
  Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i]!, points[2 * i + 1]!] as const);

describe('a polyline thinned', () => {
  it('is two points where it is straight, and keeps both points of a jump', () => {
    const straight = lineOf(Array.from({ length: 50 }, (_, i) => [i, 3 + i / 7]));
    expect(pairsOf(thinnedPoints(straight, 1e-9))).toEqual([
      [0, 3],
      [49, 10],
    ]);
    const held = lineOf([
      [0, 1],
      [1, 1],
      [2, 1],
      [2, 4],
      [3, 4],
      [4, 4],
    ]);
    expect(pairsOf(thinnedPoints(held, 0.5))).toEqual([
      [0, 1],
      [2, 1],
      [2, 4],
      [4, 4],
    ]);
    expect([thinnedPoints(lineOf([]), 1), thinnedPoints(lineOf([[3, 1]]), 1)]).toEqual([
      new Float64Array(0),
      Float64Array.of(3, 1),
    ]);
  });

  it('has of a cosine as many pieces as its height over a chord asks for', () => {
    const arc = lineOf(Array.from({ length: 2001 }, (_, i) => [i / 1000 - 1, Math.cos(i / 1000 - 1)]));
    // A curve of second derivative c departs from a chord of width w by c w² / 8; c goes from cos 1 to 1 here.
    const narrowest = Math.sqrt(8 * 1e-4);
    const widest = Math.sqrt((8 * 1e-4) / Math.cos(1));
    const pieces = thinnedPoints(arc, 1e-4).length / 2 - 1;
    expect(pieces).toBeLessThanOrEqual(2 / narrowest);
    expect(pieces).toBeGreaterThanOrEqual(2 / widest);
  });

  it('departs from no point by more than it may, and begins and ends where the line does', () => {
    const steps = fc.array(
      fc.record({ across: fc.nat(3), value: fc.double({ min: -5, max: 5, noNaN: true }) }),
      {
        minLength: 2,
        maxLength: 60,
      },
    );
    fc.assert(
      fc.property(steps, fc.double({ min: 0, max: 2, noNaN: true }), (list, within) => {
        let frame = 0;
        const pairs = list.map(({ across, value }) => [(frame += across), value] as const);
        const points = thinnedPoints(lineOf(pairs), within);
        const kept = pairsOf(points);
        expect([kept[0], kept.at(-1)]).toEqual([pairs[0], pairs.at(-1)]);
        for (const [at, value] of pairs) {
          const here = kept.filter(([other]) => other === at).map(([, other]) => other);
          const after = pointAfter(points, at);
          const [a, b] = [kept[after / 2 - 1]!, kept[after / 2] ?? kept[after / 2 - 1]!];
          const share = b[0] > a[0] ? (at - a[0]) / (b[0] - a[0]) : 0;
          const between = a[1] + (b[1] - a[1]) * share;
          const all = [...here, between];
          const [low, high] = [Math.min(...all), Math.max(...all)];
          expect(value).toBeGreaterThanOrEqual(low - within - 1e-9);
          expect(value).toBeLessThanOrEqual(high + within + 1e-9);
        }
      }),
    );
  });

  it('is the same list for the same line and distance', () => {
    const line = curvePolyline(run!, 0, 48, 0.25);
    const thin = thinnedPoints(line, 0.01);
    expect(thinnedPoints(line, 0.01)).toBe(thin);
    expect(thinnedPoints(line, 0.02)).not.toBe(thin);
    expect(thin.length).toBeLessThan(line.points.length);
  });
});
