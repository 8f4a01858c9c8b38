import fc from 'fast-check';
import {
  backwards,
  changeCurves,
  closeGap,
  closeLoop,
  curveOf,
  fallingTogether,
  holdStill,
  keysOffTheFrame,
  mirrorValues,
  moveStakes,
  openGap,
  push,
  reverseTime,
  scaledSpan,
  scaleKeys,
  setCurveFlag,
  stretch,
  toWholeFrames,
  waitAfter,
  type TimeEdit,
} from '../index';
import { resolveSide } from '../../curve';
import { CAM_LAWS, EASE_FAMILIES, type Leg, type Project } from '../../project';
import { deepFreeze, programOf, slotOf, testProject } from '../../../testing/project';
import { curveContext } from '../curve-context';

const X = 'wagon/translate.x';
const Y = 'wagon/translate.y';

/** Every kind of leg, with its parameters. */
const legs: fc.Arbitrary<Leg> = fc.oneof(
  fc.constant<Leg>({ kind: 'curve' }),
  fc.constant<Leg>({ kind: 'hold' }),
  fc
    .constantFrom(...EASE_FAMILIES)
    .chain((family) =>
      fc
        .constantFrom('start' as const, 'end' as const, 'both' as const)
        .map((slow): Leg => ({ kind: 'ease', family, slow })),
    ),
  fc.constantFrom(...CAM_LAWS).map((law): Leg => ({ kind: 'law', law })),
  fc.constant<Leg>({ kind: 'law', law: 'trapezoid', accelerate: 0.2, decelerate: 0.5 }),
  fc.constant<Leg>({ kind: 'ballistic' }),
);

const sides = fc.oneof(
  fc.constantFrom('smooth', 'bounded', 'flat', 'linear').map((mode) => ({ mode })),
  fc.record({
    mode: fc.constant('set'),
    slope: fc.double({ min: -2, max: 2, noNaN: true }),
    reach: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
  }),
);

const outsides = fc.constantFrom('hold', 'run-on', 'loop', 'loop-carry', 'swing');

interface Drawn {
  readonly gaps: readonly number[];
  readonly keys: readonly { value: number; leg: Leg; in: unknown; out: unknown; joined: boolean }[];
  readonly before: string;
  readonly after: string;
  readonly pinned: boolean;
}
const drawn: fc.Arbitrary<Drawn> = fc.integer({ min: 2, max: 7 }).chain((count) =>
  fc.record({
    gaps: fc.array(fc.integer({ min: 1, max: 30 }), { minLength: count, maxLength: count }),
    keys: fc.array(
      fc.record({
        value: fc.integer({ min: -20, max: 20 }).map((n) => n / 4),
        leg: legs,
        in: sides,
        out: sides,
        joined: fc.boolean(),
      }),
      { minLength: count, maxLength: count },
    ),
    before: outsides,
    after: outsides,
    pinned: fc.boolean(),
  }),
);

/** A project with one drawn curve, and a second channel that is locked. */
function projectOf({ gaps, keys, before, after, pinned }: Drawn): Project {
  let frame = -gaps[0]!;
  const placed = keys.map((key, i) => ({ ...key, frame: (frame += gaps[i]!) }));
  const pin = pinned && placed.length > 2 ? placed[1]!.frame : null;
  const repeats = (mode: string) => mode !== 'hold' && mode !== 'run-on';
  return testProject({}, [
    {
      channel: X,
      keys: placed,
      before: { mode: before },
      after: { mode: after, pin: repeats(after) ? pin : null },
    },
    {
      channel: Y,
      locked: true,
      keys: [
        { frame: 3, value: 1 },
        { frame: 50, value: 2 },
      ],
    },
  ]);
}

const framesOf = (project: Project, channel = X) => curveOf(project, channel)!.keys.map(({ frame }) => frame);
const refsOf = (project: Project, channel = X) =>
  framesOf(project, channel).map((frame) => ({ channel, frame }));
const spanOf = (project: Project) => ({ start: framesOf(project)[0]!, end: framesOf(project).at(-1)! });

function sampler(project: Project): (frame: number) => number {
  const program = programOf(deepFreeze(project));
  const slot = slotOf(program, X);
  return (frame) => program.channelValue(slot, frame);
}

/** What holds for every edit of time: order, gaps, pins that exist, locked curves untouched, a project that is valid. */
function expectSound(before: Project, { project, refused }: TimeEdit): void {
  const frames = framesOf(project);
  frames.forEach((frame, i) => i > 0 && expect(frame).toBeGreaterThan(frames[i - 1]!));
  expect(curveOf(project, Y)).toBe(curveOf(before, Y));
  const { pin } = curveOf(project, X)!.after;
  if (pin !== null) expect(frames.slice(1, -1)).toContain(pin);
  if (refused.length > 0) expect(project).toBe(before);
}

const amounts = fc.integer({ min: -40, max: 60 });
const places = fc.integer({ min: -10, max: 150 });

describe('every edit of time keeps the order of keys, their pins and locked channels', () => {
  const slopes = fc.constantFrom('shape' as const, 'speed' as const);
  it.each<[string, (project: Project, at: number, by: number, keep: 'shape' | 'speed') => TimeEdit]>([
    ['push after', (project, at, by, keep) => push(project, [X, Y], at, by, 'after', keep)],
    ['push before', (project, at, by, keep) => push(project, [X, Y], at, by, 'before', keep)],
    ['open gap', (project, at, by, keep) => openGap(project, [X, Y], at, Math.abs(by), keep)],
    ['close gap', (project, at, by, keep) => closeGap(project, [X, Y], at, at + Math.abs(by), keep)],
    [
      'stretch, the rest following',
      (project, at, by, keep) => {
        const span = { start: at, end: at + 1 + Math.abs(by) };
        return stretch(project, [X, Y], span, scaledSpan(span, 0.37), 'follows', keep);
      },
    ],
    [
      'stretch, the rest staying',
      (project, at, by, keep) => {
        const span = { start: at, end: at + 1 + Math.abs(by) };
        return stretch(project, [X, Y], span, scaledSpan(span, 1.9), 'stays', keep);
      },
    ],
    [
      'stakes',
      (project, at, by, keep) =>
        moveStakes(
          project,
          [X, Y],
          [
            { from: at, to: at },
            { from: at + 20, to: at + 20 + by / 5 },
            { from: at + 45, to: at + 40 },
          ],
          keep,
        ),
    ],
    ['reverse time', (project) => reverseTime(project, [X, Y], spanOf(project))],
  ])('%s', (_, edit) => {
    fc.assert(
      fc.property(drawn, places, amounts, slopes, (curve, at, by, keep) => {
        const project = projectOf(curve);
        const result = edit(project, at, by, keep);
        if (result.project.clips[0]!.curves.some(({ channel }) => channel === X))
          expectSound(project, result);
      }),
    );
  });
});

describe('edits that have an exact inverse', () => {
  it('a gap opened and closed again gives the very same keys, between frames too', () => {
    fc.assert(
      fc.property(
        drawn,
        places,
        fc.integer({ min: 1, max: 4000 }).map((n) => n / 100),
        fc.constantFrom(0, 0.1, 0.37),
        (curve, at, frames, off) => {
          const base = projectOf(curve);
          const project = push(base, [X], -1000, off, 'after').project;
          const opened = openGap(project, [X, Y], at, frames);
          const closed = closeGap(opened.project, [X, Y], at, Math.round((at + frames) * 1e6) / 1e6);
          expect(curveOf(closed.project, X)).toEqual(curveOf(project, X));
        },
      ),
    );
  });

  it('a push there and back, when nothing is passed', () => {
    fc.assert(
      fc.property(drawn, places, fc.integer({ min: 0, max: 60 }), (curve, at, by) => {
        const project = projectOf(curve);
        const there = push(project, [X], at, by, 'after');
        // after the push what stood right of `at` stands right of it still
        expect(curveOf(push(there.project, [X], at, -by, 'after').project, X)).toEqual(curveOf(project, X));
      }),
    );
  });

  it('values mirrored twice about nothing are the same', () => {
    fc.assert(
      fc.property(drawn, (curve) => {
        const project = projectOf(curve);
        const once = mirrorValues(project, refsOf(project), () => 0);
        const twice = mirrorValues(once, refsOf(project), () => 0);
        expect(curveOf(twice, X)).toEqual(curveOf(project, X));
      }),
    );
  });

  it('time reversed twice samples as it did', () => {
    fc.assert(
      fc.property(drawn, (curve) => {
        const project = projectOf(curve);
        const span = spanOf(project);
        const twice = reverseTime(reverseTime(project, [X], span).project, [X], span).project;
        expect(framesOf(twice)).toEqual(framesOf(project));
        const [was, is] = [sampler(project), sampler(twice)];
        for (let f = span.start - 40.3; f < span.end + 40; f += 0.7) expect(is(f)).toBeCloseTo(was(f), 8);
      }),
    );
  });
});

describe('slopes as promised', () => {
  const context = curveContext(testProject());
  it('shape: a whole curve stretched samples as the old one at stretched frames', () => {
    fc.assert(
      fc.property(drawn, fc.double({ min: 0.2, max: 4, noNaN: true }), (curve, factor) => {
        const legsWithoutGravity = curve.keys.map((key) =>
          key.leg.kind === 'ballistic' ? { ...key, leg: { kind: 'curve' as const } } : key,
        );
        const project = projectOf({ ...curve, keys: legsWithoutGravity });
        const span = spanOf(project);
        const { project: next } = stretch(project, [X], span, scaledSpan(span, factor), 'follows', 'shape');
        const [was, is] = [sampler(project), sampler(next)];
        for (let f = span.start + 0.31; f < span.end; f += 0.77)
          expect(is(span.start + (f - span.start) * factor)).toBeCloseTo(was(f), 6);
      }),
    );
  });

  it('speed: set slopes per second are the same numbers as before', () => {
    fc.assert(
      fc.property(drawn, fc.double({ min: 0.2, max: 4, noNaN: true }), (curve, factor) => {
        const project = projectOf(curve);
        const span = spanOf(project);
        const { project: next } = stretch(project, [X], span, scaledSpan(span, factor), 'follows', 'speed');
        const [was, is] = [curveOf(project, X)!, curveOf(next, X)!];
        was.keys.forEach((key, i) => {
          if (key.out.mode !== 'set') return;
          expect(resolveSide(is, i, 'out', context).slope).toBe(resolveSide(was, i, 'out', context).slope);
        });
      }),
    );
  });
});

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

describe('chosen keys scaled', () => {
  const project = testProject({}, [
    {
      channel: X,
      keys: [
        { frame: 0, value: 0 },
        { frame: 10, value: 2, out: { mode: 'set', slope: 1 }, in: { mode: 'set', slope: 1 } },
        { frame: 20, value: 4, in: { mode: 'set', slope: 0.5 }, joined: false },
        { frame: 40, value: 0 },
      ],
    },
  ]);
  const refs = [10, 20].map((frame) => ({ channel: X, frame }));

  it('go from or to a frame, and their own leg keeps its shape', () => {
    const { keys } = curveOf(scaleKeys(project, refs, 10, 1.5, 'shape'), X)!;
    expect(keys.map(({ frame }) => frame)).toEqual([0, 10, 25, 40]);
    expect(keys[1]).toMatchObject({ in: { slope: 1 }, out: { slope: 1 / 1.5 }, joined: false });
    expect(keys[2]!.in.slope).toBeCloseTo(1 / 3, 12);
  });

  it('keep their speeds where asked, and do nothing by a factor that is none', () => {
    const { keys } = curveOf(scaleKeys(project, refs, 20, 0.5, 'speed'), X)!;
    expect(keys.map(({ frame, out }) => [frame, out.slope])).toEqual([
      [0, 0],
      [15, 1],
      [20, 0],
      [40, 0],
    ]);
    expect(scaleKeys(project, refs, 20, 0, 'speed')).toBe(project);
  });
});

describe('keys between frames', () => {
  const project = testProject({}, [
    {
      channel: X,
      keys: [
        { frame: 0, value: 0 },
        { frame: 9.6, value: 1 },
        { frame: 10.3, value: 2 },
        { frame: 20.4, value: 3 },
      ],
    },
  ]);

  it('are found, and those that would fall together are named', () => {
    expect(keysOffTheFrame(project).map(({ frame }) => frame)).toEqual([9.6, 10.3, 20.4]);
    expect(fallingTogether(project, keysOffTheFrame(project)).map(({ frame }) => frame)).toEqual([9.6, 10.3]);
  });

  it('go to whole frames; those that would fall together stay, or are merged when asked', () => {
    expect(framesOf(toWholeFrames(project, keysOffTheFrame(project)))).toEqual([0, 9.6, 10.3, 20]);
    expect(framesOf(toWholeFrames(project, [{ channel: X, frame: 9.6 }]))).toEqual([0, 10, 10.3, 20.4]);
    const merged = toWholeFrames(project, keysOffTheFrame(project), { merge: true });
    expect(curveOf(merged, X)!.keys.map(({ frame, value }) => [frame, value])).toEqual([
      [0, 0],
      [10, 2],
      [20, 3],
    ]);
  });
});

describe('waits, holds and loops', () => {
  const project = testProject({}, [
    {
      channel: X,
      keys: [
        { frame: 0, value: 0 },
        { frame: 24, value: 6, out: { mode: 'set', slope: 1 } },
        { frame: 48, value: 0 },
      ],
    },
  ]);

  it('a wait holds between a key and its copy, which goes on as the key did', () => {
    const waiting = waitAfter(project, [{ channel: X, frame: 24 }], 40);
    expect(framesOf(waiting)).toEqual([0, 24, 64, 88]);
    const value = sampler(waiting);
    for (const f of [24, 30, 63.9, 64]) expect(value(f)).toBe(6);
    for (const f of [0.5, 3, 20]) expect(value(64 + f)).toBeCloseTo(sampler(project)(24 + f), 12);
  });

  it('hold still keeps the value to the next key', () => {
    expect(sampler(holdStill(project, [{ channel: X, frame: 0 }]))(23.99)).toBe(0);
  });

  it('a closed loop ends on its first key and repeats it; the range loops and leaves the end out', () => {
    const closed = closeLoop(project, [X], 40);
    expect(framesOf(closed)).toEqual([0, 24, 40]);
    expect(closed.range).toEqual({ start: 0, end: 40, loop: true });
    const value = sampler(closed);
    for (const f of [0, 7.3, 31]) expect(value(40 + f)).toBeCloseTo(value(f), 12);
  });

  it('weights of treatments go along with their curve', () => {
    const weighted = testProject({}, [
      {
        channel: X,
        keys: [
          { frame: 0, value: 0 },
          { frame: 30, value: 1 },
        ],
        treatments: [
          {
            kind: 'gain',
            factor: 2,
            weight: {
              keys: [
                { frame: 0, value: 0 },
                { frame: 30, value: 1 },
              ],
            },
          },
        ],
      },
    ]);
    const { project: pushed } = push(weighted, [X], 10, 12, 'after');
    const { weight } = curveOf(pushed, X)!.treatments[0]!;
    expect(typeof weight === 'number' ? [] : weight.keys.map(({ frame }) => frame)).toEqual([0, 42]);
  });

  it('a stretch that would pass a key that stays is refused as a whole', () => {
    const { project: same, refused } = stretch(
      project,
      [X],
      { start: 0, end: 24 },
      { start: 0, end: 50 },
      'stays',
      'shape',
    );
    expect(refused).toEqual([X]);
    expect(same).toBe(project);
  });

  it('locked channels are neither touched nor counted', () => {
    const locked = setCurveFlag(project, [X], 'locked', true);
    expect(openGap(locked, [X], 0, 24)).toMatchObject({ project: locked, channels: 0, keys: 0 });
    expect(changeCurves(locked, [X], () => curveOf(project, X)!)).toBe(locked);
  });
});
