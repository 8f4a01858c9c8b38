import fc from 'fast-check';
import type { Key, Project } from '../../project';
import { curveJet } from '../../curve';
import {
  CHANNEL,
  at,
  curveProject,
  keysOf,
  compiledOf,
  valueOf,
  speedOf,
  furthest,
} from '../../../testing/curve';
import {
  closeSeamValue,
  convertLegs,
  curveOf,
  insertKeys,
  keepBetweenKeys,
  lengthenHandles,
  newKey,
  rampsOf,
  reshapeCruise,
  reshapeKeySpeed,
  reshapeRamp,
  scaleBox,
  simplify,
  straying,
  toPoint,
  turningKeys,
} from '..';

describe('an ease that keys are set into', () => {
  it('comes to keys on whole frames where its breaks are', () => {
    const quart = curveProject([
      { frame: 0, value: 0, leg: { kind: 'ease', family: 'quart', slow: 'both' } },
      { frame: 24, value: 2 },
    ]);
    const refs = Array.from({ length: 25 }, (_, frame) => ({ channel: CHANNEL, frame }));
    const frames = keysOf(insertKeys(quart, refs)).map(({ frame }) => frame);
    for (const { frame } of refs) expect(frames).toContain(frame);
    const beside = frames.filter((frame) => !Number.isInteger(frame));
    for (const frame of beside) expect(Math.abs(frame - Math.round(frame))).toBeGreaterThan(1e-6);
  });
});

describe('sides of many keys', () => {
  const hops = () =>
    curveProject([
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
    const shown = compiledOf(pointed);
    expect(curveJet(shown, 19.999)[1]).toBeLessThan(-0.1);
    expect(curveJet(shown, 20)[1]).toBeGreaterThan(0.05);
  });

  it('handles get longer together, within what a leg can bear', () => {
    const longer = lengthenHandles(hops(), [at(10)], 2);
    expect(keysOf(longer)[1]).toMatchObject({ in: { reach: 2 / 3 }, out: { reach: 2 / 3 } });
    expect(keysOf(lengthenHandles(hops(), [at(10)], 9))[1]!.in.reach).toBe(0.99);
  });

  it('a curve that leaves its keys is found and kept between them', () => {
    const dips = curveProject([
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
      expect(valueOf(kept, frame)).toBeGreaterThanOrEqual(-1e-12);
      expect(valueOf(kept, frame)).toBeLessThanOrEqual(3 + 1e-12);
    }
  });
});

describe('speed reshaped', () => {
  const run = () =>
    curveProject([
      { frame: 0, value: 0, in: { mode: 'flat' }, out: { mode: 'flat' } },
      { frame: 24, value: 2 },
      { frame: 48, value: 4, in: { mode: 'flat' }, out: { mode: 'flat' } },
      { frame: 60, value: 4, in: { mode: 'flat' }, out: { mode: 'flat' } },
    ]);

  it('at a key, with places kept: every key stays and the speed there is another', () => {
    const faster = reshapeKeySpeed(run(), at(24), 'out', 0.05, 'places');
    expect(keysOf(faster).map((key) => key.value)).toEqual([0, 2, 4, 4]);
    expect(speedOf(faster, 24) - speedOf(run(), 24)).toBeCloseTo(0.05 * 24, 9);
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
      expect(speedOf(faster, frame) - speedOf(run(), frame)).toBeCloseTo(0.05 * 24 * share, 9);
  });

  const skip = () =>
    curveProject([
      { frame: 0, value: 0, leg: { kind: 'law', law: 'trapezoid' } },
      { frame: 48, value: 6 },
      { frame: 60, value: 6 },
    ]);

  it('a plateau lifted with places kept lengthens its ramps; with the area free it goes farther', () => {
    const curve = (of: Project) => rampsOf(curveOf(of, CHANNEL)!, 0)!;
    expect(curve(skip()).cruise * 24).toBeCloseTo(4.5, 9);
    const kept = reshapeCruise(skip(), at(0), 5 / 24, 'places');
    expect(speedOf(kept, 24)).toBeCloseTo(5, 9);
    expect(curve(kept).accelerate).toBeCloseTo(0.4, 9);
    expect(keysOf(kept).map((key) => key.value)).toEqual([0, 6, 6]);
    const free = reshapeCruise(skip(), at(0), 5 / 24, 'free');
    expect(speedOf(free, 24)).toBeCloseTo(5, 9);
    expect(keysOf(free).map((key) => key.value)).toEqual(
      [0, 20 / 3, 20 / 3].map((v) => expect.closeTo(v, 9)),
    );
  });

  it('a ramp made shorter, both ways; never longer than the leg has room', () => {
    const kept = reshapeRamp(skip(), at(0), 'accelerate', 1 / 6, 'places');
    expect(speedOf(kept, 24)).toBeCloseTo(6 / 2 / 0.75, 9);
    const free = reshapeRamp(skip(), at(0), 'accelerate', 1 / 6, 'free');
    expect(speedOf(free, 24)).toBeCloseTo(4.5, 9);
    expect(keysOf(free)[1]!.value).toBeCloseTo(4.5 * 2 * 0.75, 9);
    const most = reshapeRamp(skip(), at(0), 'accelerate', 5, 'places');
    expect(rampsOf(curveOf(most, CHANNEL)!, 0)!.accelerate).toBeCloseTo(2 / 3, 12);
  });
});

describe('laws of edits', () => {
  const side = fc.record({
    mode: fc.constantFrom('smooth', 'bounded', 'flat', 'linear', 'set'),
    slope: fc.double({ min: -2, max: 2, noNaN: true }),
    reach: fc.double({ min: 0.001, max: 0.99, noNaN: true }),
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

  it('splitting a curve changes nothing of it; beside very long handles more keys keep it', () => {
    const longest = curveProject([
      { frame: 0, value: 0, out: { mode: 'flat', reach: 0.66 } },
      { frame: 8, value: 5, in: { mode: 'flat', reach: 0.97 } },
    ]);
    const split = insertKeys(longest, [at(2)]);
    expect(furthest(longest, split, 0, 8)).toBeLessThan(1e-12);
    expect(keysOf(split).map(({ frame }) => frame)).toEqual([0, 2, 3, 8]);
    for (const key of keysOf(split)) expect(Math.max(key.in.reach, key.out.reach)).toBeLessThanOrEqual(0.99);
    fc.assert(
      fc.property(keyList, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (keys, share) => {
        const before = curveProject(keys);
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
          const before = curveProject(keys);
          const refs = keysOf(before).map((key) => at(key.frame));
          const about = { frame, value: () => 1.5 };
          const scaled = scaleBox(before, refs, { ...about, frames, values }).project;
          const there = keysOf(scaled).map((key) => at(key.frame));
          const back = keysOf(
            scaleBox(scaled, there, { ...about, frames: 1 / frames, values: 1 / values }).project,
          );
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
    const before = curveProject([newKey(0, 0), newKey(10, 1), newKey(20, 0)]);
    expect(closeSeamValue(before, [CHANNEL], 'after', 'outer')).toBe(before);
    expect(simplify(before, [at(0), at(20)], 1e-6).project).toBe(before);
    expect(convertLegs(before, [at(0)]).project).toBe(before);
    expect(
      scaleBox(before, [at(0), at(10)], { frame: 0, frames: 1, value: () => 0, values: 1 }).project,
    ).toBe(before);
    expect(reshapeKeySpeed(before, at(0), 'out', 0, 'free')).toBe(before);
  });
});
