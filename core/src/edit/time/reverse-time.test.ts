import fc from 'fast-check';
import { backwards, curveOf, mirrorValues, reverseTime } from '../index';
import { X, drawn, legs, projectOf, refsOf, sampler, spanOf } from '../../../testing/drawn-curve';
import { testProject } from '../../../testing/project';

describe('reverse time', () => {
  it('shows at a + b − f what was at f, for every leg, side and outside', () => {
    fc.assert(
      fc.property(drawn, (curve) => {
        const project = projectOf(curve);
        const span = spanOf(project);
        const reversed = reverseTime(project, [X], span).project;
        const [was, is] = [sampler(project), sampler(reversed)];
        // 0.0137 never meets a key, where a jump may show either value
        for (let f = span.start - 60 + 0.0137; f < span.end + 60; f += 0.61)
          expect(Math.abs(is(span.start + span.end - f) - was(f))).toBeLessThan(
            1e-9 * Math.max(1, Math.abs(was(f))),
          );
      }),
      { numRuns: 300 },
    );
  });

  it('turns a loop after into a loop before, with its count and pin', () => {
    const project = testProject({}, [
      {
        channel: X,
        keys: [
          { frame: 0, value: 0 },
          { frame: 10, value: 4 },
          { frame: 30, value: 1 },
        ],
        after: { mode: 'loop', count: 2.5, pin: 10 },
      },
    ]);
    const curve = curveOf(reverseTime(project, [X], { start: 0, end: 30 }).project, X)!;
    expect(curve.before).toEqual({ mode: 'loop', count: 2.5, pin: 20 });
    expect(curve.after.mode).toBe('hold');
  });

  it('of a part of a curve leaves what is around it', () => {
    const project = testProject({}, [
      {
        channel: X,
        keys: [
          { frame: 0, value: 0 },
          { frame: 10, value: 1, leg: { kind: 'ease', family: 'quad', slow: 'start' } },
          { frame: 30, value: 5, leg: { kind: 'law', law: 'trapezoid', accelerate: 0.1 } },
          { frame: 60, value: 2 },
        ],
      },
    ]);
    const keys = curveOf(reverseTime(project, [X], { start: 10, end: 30 }).project, X)!.keys;
    expect(keys.map(({ frame, value }) => [frame, value])).toEqual([
      [0, 0],
      [10, 5],
      [30, 1],
      [60, 2],
    ]);
    expect(keys[1]!.leg).toEqual({ kind: 'ease', family: 'quad', slow: 'end' });
    expect(keys[2]!.leg).toMatchObject({ law: 'trapezoid', accelerate: 0.1 });
  });

  it('reads legs backwards, and backwards again as they were', () => {
    fc.assert(fc.property(legs, (leg) => expect(backwards(backwards(leg))).toEqual(leg)));
    expect(backwards({ kind: 'law', law: 's-curve', accelerate: 0.2 })).toEqual({
      kind: 'law',
      law: 's-curve',
      decelerate: 0.2,
    });
  });
});

describe('mirrored values', () => {
  it('are 2c − v at every frame, free falls too', () => {
    fc.assert(
      fc.property(drawn, fc.integer({ min: -8, max: 8 }), (curve, about) => {
        const project = projectOf(curve);
        const mirrored = mirrorValues(project, refsOf(project), () => about);
        const span = spanOf(project);
        const [was, is] = [sampler(project), sampler(mirrored)];
        for (let f = span.start - 20.3; f < span.end + 20; f += 0.9)
          expect(is(f)).toBeCloseTo(2 * about - was(f), 8);
      }),
    );
  });
});
