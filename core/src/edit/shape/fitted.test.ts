import fc from 'fast-check';
import { CAM_LAWS, EASE_FAMILIES } from '../../project';
import type { Leg } from '../../project';
import { CHANNEL, at, curveProject, keysOf, valueOf, furthest } from '../../../testing/curve';
import { convertLegs, curveOf, insertKeys, simplify, bake } from '..';

const legs: readonly Leg[] = [
  ...EASE_FAMILIES.flatMap((family) =>
    (['start', 'end', 'both'] as const).map((slow): Leg => ({ kind: 'ease', family, slow })),
  ),
  ...CAM_LAWS.map((law): Leg => ({ kind: 'law', law })),
];

describe('a leg made into curves', () => {
  it.each(legs.map((leg) => [JSON.stringify(leg), leg] as const))(
    'stays within its tolerance: %s',
    (_, leg) => {
      const before = curveProject([
        { frame: 0, value: 1, leg },
        { frame: 48, value: 5 },
      ]);
      const made = convertLegs(before, [at(0)], 1e-3);
      expect(furthest(before, made.project, 0, 48)).toBeLessThanOrEqual(4e-3 * 1.02);
      expect(made.error).toBeLessThanOrEqual(4e-3);
      expect(keysOf(made.project).every((key) => key.leg.kind === 'curve' || key.frame === 48)).toBe(true);
      expect(made.keysAfter).toBe(keysOf(made.project).length);
    },
  );

  it('needs few keys: one piece for a cubic and a free fall, few for what is smooth', () => {
    const pieces = (leg: Leg) =>
      convertLegs(
        curveProject([
          { frame: 0, value: 0, leg },
          { frame: 48, value: 2 },
        ]),
        [at(0)],
      ).keysAfter - 1;
    expect(pieces({ kind: 'ballistic' })).toBe(1);
    expect(pieces({ kind: 'ease', family: 'quad', slow: 'start' })).toBe(1);
    expect(pieces({ kind: 'ease', family: 'cubic', slow: 'end' })).toBe(1);
    expect(pieces({ kind: 'law', law: 'cycloidal' })).toBeLessThanOrEqual(3);
    expect(pieces({ kind: 'law', law: 'modified-trapezoid' })).toBeLessThanOrEqual(4);
    expect(pieces({ kind: 'law', law: 'harmonic' })).toBe(2);
  });

  it('goes on smoothly through the keys between, and takes a key where one is wanted', () => {
    const law = { kind: 'law', law: 'cycloidal' } as const;
    const keys = [
      { frame: 0, value: 0, leg: law },
      { frame: 48, value: 2 },
    ];
    const inner = keysOf(convertLegs(curveProject(keys), [at(0)]).project).slice(1, -1);
    expect(inner.every((key) => key.joined && key.in.slope === key.out.slope)).toBe(true);
    const placed = keysOf(insertKeys(curveProject(keys), [at(13)])).find(({ frame }) => frame === 13)!;
    const tau = 13 / 48;
    expect(placed.value).toBeCloseTo(2 * (tau - Math.sin(2 * Math.PI * tau) / (2 * Math.PI)), 12);
  });

  it('keeps within any tolerance, and leaves other legs alone', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...legs),
        fc.double({ min: -4, max: -2, noNaN: true }),
        fc.double({ min: 1, max: 90, noNaN: true }),
        (leg, exponent, height) => {
          const keys = [
            { frame: -10, value: 3 },
            { frame: 0, value: 0, leg },
            { frame: 30, value: height, leg: { kind: 'hold' } },
            { frame: 40, value: 0 },
          ];
          const before = curveProject(keys);
          const made = convertLegs(before, [at(0), at(30)], 10 ** exponent);
          expect(furthest(before, made.project, 0, 29.999)).toBeLessThanOrEqual(
            10 ** exponent * height * 1.05,
          );
          expect(keysOf(made.project).find(({ frame }) => frame === 30)!.leg.kind).toBe('hold');
        },
      ),
      { numRuns: 25, endOnFailure: true },
    );
  });
});

describe('simplify', () => {
  /** A hoist's swing, sampled every frame, as a recording would have it, with unrest of a third of a millimetre. */
  const dense = () => {
    const values = Array.from({ length: 400 }, (_, i) => {
      const unrest = ((i * 7919) % 101) / 101 - 0.5;
      return 1.2 * Math.sin(i / 45) * Math.exp(-i / 400) + 0.0006 * unrest;
    });
    return curveProject(
      values.map((v, frame) => ({ frame, value: v, in: { mode: 'linear' }, out: { mode: 'linear' } })),
    );
  };

  it('makes fewer than 20 keys of 400 within a millimetre, and tells the true greatest error', () => {
    const before = dense();
    const made = simplify(
      before,
      keysOf(before).map(({ frame }) => at(frame)),
      1e-3,
    );
    expect(made.keysBefore).toBe(400);
    expect(made.keysAfter).toBeLessThan(20);
    expect(made.error).toBeLessThanOrEqual(1e-3);
    const miss = furthest(before, made.project, 0, 399);
    expect(miss).toBeLessThanOrEqual(1e-3 * 1.1);
    expect(miss).toBeGreaterThanOrEqual(made.error * 0.9);
  });

  it('keeps corners, holds and pins', () => {
    const zigzag = Array.from({ length: 41 }, (_, i) => ({
      frame: i,
      value: Math.abs(((i + 10) % 20) - 10),
      in: { mode: 'linear' },
      out: { mode: 'linear' },
    }));
    const before = curveProject(
      [...zigzag, { frame: 50, value: 0, leg: { kind: 'hold' } }, { frame: 60, value: 4 }],
      { after: { mode: 'loop', pin: 20 } },
    );
    const made = simplify(
      before,
      keysOf(before).map(({ frame }) => at(frame)),
      1e-3,
    );
    const frames = keysOf(made.project).map(({ frame }) => frame);
    expect(frames).toEqual(expect.arrayContaining([0, 10, 20, 30, 50, 60]));
    expect(frames.length).toBeLessThan(10);
    expect(valueOf(made.project, 55)).toBe(0);
    expect(curveOf(made.project, CHANNEL)!.after.pin).toBe(20);
  });

  it('leaves out holds that hold on the same, but for pins, the ends and what was not chosen', () => {
    const stills = [0, 0, 0.0004, 2, 2, 2.0006, 2, 2, 5].map((value, i) => ({
      frame: i * 6,
      value,
      leg: { kind: 'hold' },
    }));
    const before = curveProject(stills, { after: { mode: 'loop', pin: 36 } });
    const all = keysOf(before).map(({ frame }) => at(frame));
    const made = simplify(before, all, 1e-3);
    expect(keysOf(made.project).map(({ frame, value }) => [frame, value])).toEqual([
      [0, 0],
      [18, 2],
      [36, 2],
      [48, 5],
    ]);
    expect([made.error, made.at]).toEqual([expect.closeTo(6e-4, 12), at(30)]);
    for (let frame = 0; frame < 60; frame++)
      expect(Math.abs(valueOf(made.project, frame) - valueOf(before, frame))).toBeLessThanOrEqual(1e-3);
    const few = simplify(before, [at(18), at(30)], 1e-3);
    expect(keysOf(few.project).map(({ frame }) => frame)).toEqual([0, 6, 12, 18, 30, 36, 42, 48]);
  });

  it('leaves a curve alone that is as simple as it can be', () => {
    const before = curveProject([
      { frame: 0, value: 0 },
      { frame: 20, value: 1 },
      { frame: 40, value: 0 },
    ]);
    expect(simplify(before, [at(0), at(20), at(40)], 1e-4).project).toBe(before);
  });
});

describe('bake', () => {
  it('keys every n frames on what shows, treatments and repetitions included', () => {
    const before = curveProject(
      [
        { frame: 0, value: 0 },
        { frame: 20, value: 2 },
        { frame: 40, value: 0 },
      ],
      {
        after: { mode: 'loop' },
        treatments: [{ kind: 'noise', amplitude: 0.2, period: 10, seed: 3 }],
      },
    );
    const made = bake(before, [CHANNEL], 2, { start: 0, end: 100 });
    const curve = curveOf(made.project, CHANNEL)!;
    expect(curve.treatments).toEqual([]);
    expect(curve.keys.map(({ frame }) => frame)).toEqual(Array.from({ length: 51 }, (_, i) => i * 2));
    for (const frame of [0, 6, 50, 98])
      expect(valueOf(made.project, frame)).toBeCloseTo(valueOf(before, frame), 12);
    expect(made.error).toBeLessThan(0.02);
    expect(furthest(before, made.project, 0, 100)).toBeLessThanOrEqual(made.error * 1.2);
  });
});
