import fc from 'fast-check';
import { CAM_LAWS, EASE_FAMILIES, secondsPerFrame, type Key, type Leg, type Project } from '../../project';
import { camLaw, easeLaw, lawPeaks } from '../../law';
import { compileCurve, curveJet, curveValue, seamGaps } from '../../curve';
import { testProject } from '../../../testing/project';
import {
  changeCurves,
  closeSeamSpeed,
  closeSeamValue,
  convertLegs,
  curveContext,
  curveOf,
  insertKeys,
  keepBetweenKeys,
  lengthenHandles,
  loopSpeed,
  makeEven,
  newKey,
  rampsOf,
  reshapeCruise,
  reshapeKeySpeed,
  reshapeRamp,
  scaleBox,
  setLoopSpeed,
  setRoundSeconds,
  simplify,
  bake,
  straying,
  toPoint,
  turningKeys,
  type KeyRef,
} from '..';

const CHANNEL = 'wagon/translate.x';
const at = (frame: number): KeyRef => ({ channel: CHANNEL, frame });
const project = (keys: readonly unknown[], more: object = {}) =>
  testProject({}, [{ channel: CHANNEL, keys, ...more }]);
const keysOf = (of: Project) => curveOf(of, CHANNEL)!.keys;
const compiled = (of: Project) => compileCurve(curveOf(of, CHANNEL)!, 0, curveContext(of));
const value = (of: Project, frame: number) => curveValue(compiled(of), frame);
const rate = (of: Project, frame: number) => curveJet(compiled(of), frame)[1] / secondsPerFrame(of.rate);

const furthest = (a: Project, b: Project, from: number, to: number) => {
  let most = 0;
  for (let i = 0; i <= 2000; i++) {
    const frame = from + ((to - from) * i) / 2000;
    most = Math.max(most, Math.abs(value(a, frame) - value(b, frame)));
  }
  return most;
};

describe('peaks of laws, relative to even motion', () => {
  it.each([
    ['harmonic', Math.PI / 2, Math.PI ** 2 / 2],
    ['cycloidal', 2, 2 * Math.PI],
    ['poly-345', 1.875, 5.7735],
    ['poly-4567', 2.1875, 7.5132],
    ['modified-sine', 1.76, 5.528],
    ['modified-trapezoid', 2, 4.888],
    ['trapezoid', 1.5, 4.5],
    ['s-curve', 1.5, 9],
  ] as const)('%s reaches the textbook’s speed and acceleration', (law, speed, acceleration) => {
    const peaks = lawPeaks(camLaw({ kind: 'law', law }));
    expect(peaks.speed).toBeCloseTo(speed, 2);
    expect(peaks.acceleration).toBeCloseTo(acceleration, 2);
  });

  it('a quarter circle stands upright at its end', () => {
    expect(lawPeaks(easeLaw({ kind: 'ease', family: 'circle', slow: 'start' })).speed).toBe(Infinity);
  });
});

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
      const before = project([
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
        project([
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
    const inner = keysOf(convertLegs(project(keys), [at(0)]).project).slice(1, -1);
    expect(inner.every((key) => key.joined && key.in.slope === key.out.slope)).toBe(true);
    const placed = keysOf(insertKeys(project(keys), [at(13)])).find(({ frame }) => frame === 13)!;
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
          const before = project(keys);
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
    return project(
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
    const before = project(
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
    expect(value(made.project, 55)).toBe(0);
    expect(curveOf(made.project, CHANNEL)!.after.pin).toBe(20);
  });

  it('leaves a curve alone that is as simple as it can be', () => {
    const before = project([
      { frame: 0, value: 0 },
      { frame: 20, value: 1 },
      { frame: 40, value: 0 },
    ]);
    expect(simplify(before, [at(0), at(20), at(40)], 1e-4).project).toBe(before);
  });
});

describe('bake', () => {
  it('keys every n frames on what shows, treatments and repetitions included', () => {
    const before = project(
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
      expect(value(made.project, frame)).toBeCloseTo(value(before, frame), 12);
    expect(made.error).toBeLessThan(0.02);
    expect(furthest(before, made.project, 0, 100)).toBeLessThanOrEqual(made.error * 1.2);
  });
});

describe('seams', () => {
  const loop = (mode: string, more: object = {}) =>
    project(
      [
        { frame: 0, value: 1, out: { mode: 'set', slope: 0.1 } },
        { frame: 10, value: 4 },
        { frame: 24, value: 3, in: { mode: 'set', slope: -0.2 } },
      ],
      { after: { mode, ...more } },
    );
  const gap = (of: Project) => seamGaps(curveOf(of, CHANNEL)!, compiled(of), secondsPerFrame(of.rate))[0]!;

  it('are measured in units: value, per second, per second squared', () => {
    expect(gap(loop('loop'))).toMatchObject({ side: 'after', frame: 24, to: 0, value: -2 });
    expect(gap(loop('loop')).speed).toBeCloseTo(0.3 * 24, 9);
    expect(gap(loop('loop-carry')).value).toBe(0);
    expect(gap(loop('swing'))).toMatchObject({ value: 0 });
    expect(gap(loop('swing')).speed).toBeCloseTo(0.4 * 24, 9);
    expect(gap(loop('loop', { pin: 10 })).value).toBe(1);
  });

  it('a hold before the seam shows the jump that is seen', () => {
    const held = project(
      [
        { frame: 0, value: 1 },
        { frame: 10, value: 4, leg: { kind: 'hold' } },
        { frame: 20, value: 1 },
      ],
      { after: { mode: 'loop' } },
    );
    expect(gap(held).value).toBe(-3);
  });

  it.each(['outer', 'both', 'carry'] as const)('close in value: %s', (how) => {
    expect(gap(closeSeamValue(loop('loop'), [CHANNEL], 'after', how)).value).toBe(0);
  });

  it.each(['outer', 'both'] as const)('close in speed: %s', (how) => {
    for (const mode of ['loop', 'loop-carry', 'swing'])
      expect(gap(closeSeamSpeed(loop(mode), [CHANNEL], 'after', how)).speed).toBeCloseTo(0, 9);
  });

  it('treated curves are measured as they show', () => {
    const noisy = project(
      [
        { frame: 0, value: 0 },
        { frame: 24, value: 0 },
      ],
      {
        after: { mode: 'loop' },
        treatments: [{ kind: 'noise', amplitude: 1, period: 7, seed: 2, loop: 24 }],
      },
    );
    expect(Math.abs(gap(noisy).value)).toBeLessThan(1e-9);
    expect(Math.abs(gap(noisy).speed)).toBeLessThan(1e-6);
  });
});

describe('the speed of a loop', () => {
  const wheel = () =>
    testProject({}, [
      {
        channel: 'wagon/rotate.y',
        keys: [
          { frame: 0, value: 0 },
          { frame: 30, value: 40 },
          { frame: 90, value: 160 },
          { frame: 130, value: 290 },
        ],
        after: { mode: 'loop-carry', pin: 30 },
      },
    ]);
  const turn = (of: Project) => curveOf(of, 'wagon/rotate.y')!;
  const withCurve = (of: Project, next: ReturnType<typeof setLoopSpeed>) =>
    changeCurves(of, ['wagon/rotate.y'], (curve) => next ?? curve);

  it('is the way of a round over its time', () => {
    expect(loopSpeed(wheel(), turn(wheel()))).toMatchObject({
      end: 'after',
      perSecond: expect.closeTo(60, 9),
    });
    expect(loopSpeed(wheel(), turn(wheel()))!.seconds).toBeCloseTo(100 / 24, 12);
  });

  it('made even: a straight round that a lead-in arrives at with the same speed', () => {
    const even = makeEven(wheel(), ['wagon/rotate.y']);
    const shown = compileCurve(turn(even), 0, curveContext(even));
    for (const frame of [31, 77, 129, 131, 400, 5000.5])
      expect(curveJet(shown, frame)[1]).toBeCloseTo(2.5, 9);
    expect(curveJet(shown, 29.9999)[1]).toBeCloseTo(2.5, 3);
    expect(turn(even).keys.map(({ frame }) => frame)).toEqual([0, 30, 130]);
  });

  it('9 rpm, keeping the values: the round takes another time; keeping the times: it goes another way', () => {
    const even = makeEven(wheel(), ['wagon/rotate.y']);
    const faster = withCurve(even, setLoopSpeed(even, turn(even), 54, 'values'));
    expect(turn(faster).keys.at(-1)).toMatchObject({ value: 290 });
    expect(turn(faster).keys.at(-1)!.frame).toBeCloseTo(30 + (250 / 54) * 24, 6);
    const farther = withCurve(even, setLoopSpeed(even, turn(even), 54, 'times'));
    expect(turn(farther).keys.at(-1)).toMatchObject({ frame: 130, value: 40 + (54 * 100) / 24 });
    for (const made of [faster, farther]) {
      const shown = compileCurve(turn(made), 0, curveContext(made));
      for (const frame of [40, 200, 1234]) expect(curveJet(shown, frame)[1] * 24).toBeCloseTo(54, 6);
      expect(curveJet(shown, 29.9999)[1] * 24).toBeCloseTo(54, 1);
      expect(turn(made).keys.slice(0, 2)).toMatchObject([
        { frame: 0, value: 0 },
        { frame: 30, value: 40 },
      ]);
    }
  });

  it('seconds a round; what can’t be is refused', () => {
    expect(setRoundSeconds(wheel(), turn(wheel()), 5)!.keys.at(-1)!.frame).toBeCloseTo(150, 9);
    expect(setRoundSeconds(wheel(), turn(wheel()), 0)).toBeNull();
    expect(setLoopSpeed(wheel(), turn(wheel()), -20, 'values')).toBeNull();
    expect(setLoopSpeed(wheel(), turn(wheel()), -20, 'times')!.keys.at(-1)!.value).toBeLessThan(40);
  });
});

describe('sides of many keys', () => {
  const hops = () =>
    project([
      { frame: 0, value: 0 },
      { frame: 10, value: 2 },
      { frame: 20, value: 0 },
      { frame: 30, value: 1 },
      { frame: 40, value: 0 },
    ]);

  it('contacts and tops are found, and contacts come to points', () => {
    expect(turningKeys(hops(), [CHANNEL], 'contacts').map(({ frame }) => frame)).toEqual([0, 20, 40]);
    expect(turningKeys(hops(), [CHANNEL], 'tops').map(({ frame }) => frame)).toEqual([10, 30]);
    const pointed = toPoint(hops(), turningKeys(hops(), [CHANNEL], 'contacts'));
    const shown = compiled(pointed);
    expect(curveJet(shown, 19.999)[1]).toBeLessThan(-0.1);
    expect(curveJet(shown, 20)[1]).toBeGreaterThan(0.05);
  });

  it('handles get longer together, within what a leg can bear', () => {
    const longer = lengthenHandles(hops(), [at(10)], 2);
    expect(keysOf(longer)[1]).toMatchObject({ in: { reach: 2 / 3 }, out: { reach: 2 / 3 } });
    expect(keysOf(lengthenHandles(hops(), [at(10)], 9))[1]!.in.reach).toBe(0.99);
  });

  it('a curve that leaves its keys is found and kept between them', () => {
    const dips = project([
      { frame: 0, value: 0 },
      { frame: 20, value: 0.1 },
      { frame: 24, value: 3 },
      { frame: 40, value: 3 },
    ]);
    const found = straying(dips, [CHANNEL]);
    expect(found.map(({ frame }) => frame)).toEqual([0, 24]);
    const kept = keepBetweenKeys(dips, found);
    expect(straying(kept, [CHANNEL])).toEqual([]);
    for (let frame = 0; frame <= 40; frame += 0.25) {
      expect(value(kept, frame)).toBeGreaterThanOrEqual(-1e-12);
      expect(value(kept, frame)).toBeLessThanOrEqual(3 + 1e-12);
    }
  });
});

describe('speed reshaped', () => {
  const run = () =>
    project([
      { frame: 0, value: 0, in: { mode: 'flat' }, out: { mode: 'flat' } },
      { frame: 24, value: 2 },
      { frame: 48, value: 4, in: { mode: 'flat' }, out: { mode: 'flat' } },
      { frame: 60, value: 4, in: { mode: 'flat' }, out: { mode: 'flat' } },
    ]);

  it('at a key, with places kept: every key stays and the speed there is another', () => {
    const faster = reshapeKeySpeed(run(), at(24), 'out', 0.05, 'places');
    expect(keysOf(faster).map((key) => key.value)).toEqual([0, 2, 4, 4]);
    expect(rate(faster, 24) - rate(run(), 24)).toBeCloseTo(0.05 * 24, 9);
  });

  it('with the area free: the speed gains a straight ramp, and what lies behind moves by the area under it', () => {
    const faster = reshapeKeySpeed(run(), at(24), 'out', 0.05, 'free');
    expect(keysOf(faster).map((key) => key.value)).toEqual(
      [0, 2.6, 5.2, 5.2].map((v) => expect.closeTo(v, 9)),
    );
    for (const [frame, share] of [
      [30, 0.75],
      [36, 0.5],
      [42, 0.25],
      [12, 0.5],
      [6, 0.25],
    ] as const)
      expect(rate(faster, frame) - rate(run(), frame)).toBeCloseTo(0.05 * 24 * share, 9);
  });

  const skip = () =>
    project([
      { frame: 0, value: 0, leg: { kind: 'law', law: 'trapezoid' } },
      { frame: 48, value: 6 },
      { frame: 60, value: 6 },
    ]);

  it('a plateau lifted with places kept lengthens its ramps; with the area free it goes farther', () => {
    const curve = (of: Project) => rampsOf(curveOf(of, CHANNEL)!, 0)!;
    expect(curve(skip()).cruise * 24).toBeCloseTo(4.5, 9);
    const kept = reshapeCruise(skip(), at(0), 5 / 24, 'places');
    expect(rate(kept, 24)).toBeCloseTo(5, 9);
    expect(curve(kept).accelerate).toBeCloseTo(0.4, 9);
    expect(keysOf(kept).map((key) => key.value)).toEqual([0, 6, 6]);
    const free = reshapeCruise(skip(), at(0), 5 / 24, 'free');
    expect(rate(free, 24)).toBeCloseTo(5, 9);
    expect(keysOf(free).map((key) => key.value)).toEqual(
      [0, 20 / 3, 20 / 3].map((v) => expect.closeTo(v, 9)),
    );
  });

  it('a ramp made shorter, both ways; never longer than the leg has room', () => {
    const kept = reshapeRamp(skip(), at(0), 'accelerate', 1 / 6, 'places');
    expect(rate(kept, 24)).toBeCloseTo(6 / 2 / 0.75, 9);
    const free = reshapeRamp(skip(), at(0), 'accelerate', 1 / 6, 'free');
    expect(rate(free, 24)).toBeCloseTo(4.5, 9);
    expect(keysOf(free)[1]!.value).toBeCloseTo(4.5 * 2 * 0.75, 9);
    const most = reshapeRamp(skip(), at(0), 'accelerate', 5, 'places');
    expect(rampsOf(curveOf(most, CHANNEL)!, 0)!.accelerate).toBeCloseTo(2 / 3, 12);
  });
});

describe('laws of edits', () => {
  const side = fc.record({
    mode: fc.constantFrom('smooth', 'bounded', 'flat', 'linear', 'set'),
    slope: fc.double({ min: -2, max: 2, noNaN: true }),
    reach: fc.double({ min: 0.01, max: 0.9, noNaN: true }),
  });
  const keyList = fc
    .array(
      fc.record({
        gap: fc.integer({ min: 2, max: 20 }),
        value: fc.double({ min: -5, max: 5, noNaN: true }),
        in: side,
        out: side,
      }),
      {
        minLength: 3,
        maxLength: 7,
      },
    )
    .map((list) => {
      let frame = 0;
      return list.map(({ gap, ...key }) => ({ ...key, frame: (frame += gap), joined: false }));
    });

  it('splitting a curve changes nothing of it', () => {
    fc.assert(
      fc.property(keyList, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (keys, share) => {
        const before = project(keys);
        const [a, b] = [keys[0]!.frame, keys.at(-1)!.frame];
        const after = insertKeys(before, [at(a + share * (b - a))]);
        expect(furthest(before, after, a, b)).toBeLessThan(1e-9);
      }),
      { numRuns: 60 },
    );
  });

  it('a box scaled and scaled back is what it was', () => {
    fc.assert(
      fc.property(
        keyList,
        fc.constantFrom(0.5, 2, 4, 3, 1.25),
        fc.constantFrom(2, -1, 0.5, 3),
        fc.integer({ min: -10, max: 50 }),
        (keys, frames, values, frame) => {
          const before = project(keys);
          const refs = keysOf(before).map((key) => at(key.frame));
          const about = { frame, value: () => 1.5 };
          const scaled = scaleBox(before, refs, { ...about, frames, values });
          const there = keysOf(scaled).map((key) => at(key.frame));
          const back = keysOf(scaleBox(scaled, there, { ...about, frames: 1 / frames, values: 1 / values }));
          keysOf(before).forEach((key: Key, i) => {
            expect(back[i]!.frame).toBeCloseTo(key.frame, 5);
            expect(back[i]!.value).toBeCloseTo(key.value, 9);
            expect(back[i]!.out.slope).toBeCloseTo(key.out.slope, 9);
            expect(back[i]!.in.mode).toBe(key.in.mode);
          });
        },
      ),
      { numRuns: 80 },
    );
  });

  it('an edit that changes nothing gives back the very same project', () => {
    const before = project([newKey(0, 0), newKey(10, 1), newKey(20, 0)]);
    expect(closeSeamValue(before, [CHANNEL], 'after', 'outer')).toBe(before);
    expect(simplify(before, [at(0), at(20)], 1e-6).project).toBe(before);
    expect(convertLegs(before, [at(0)]).project).toBe(before);
    expect(scaleBox(before, [at(0), at(10)], { frame: 0, frames: 1, value: () => 0, values: 1 })).toBe(
      before,
    );
    expect(reshapeKeySpeed(before, at(0), 'out', 0, 'free')).toBe(before);
  });
});
