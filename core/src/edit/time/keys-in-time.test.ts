import {
  changeCurves,
  closeLoop,
  curveOf,
  fallingTogether,
  holdStill,
  keysOffTheFrame,
  openGap,
  push,
  scaleKeys,
  setCurveFlag,
  stretch,
  toWholeFrames,
  waitAfter,
} from '../index';
import { X, framesOf, sampler } from '../../../testing/drawn-curve';
import { testProject } from '../../../testing/project';

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
    const { keys } = curveOf(scaleKeys(project, refs, 10, 1.5, 'shape').project, X)!;
    expect(keys.map(({ frame }) => frame)).toEqual([0, 10, 25, 40]);
    expect(keys[1]).toMatchObject({ in: { slope: 1 }, out: { slope: 1 / 1.5 }, joined: false });
    expect(keys[2]!.in.slope).toBeCloseTo(1 / 3, 12);
  });

  it('keep their speeds where asked, and do nothing by a factor that is none', () => {
    const { keys } = curveOf(scaleKeys(project, refs, 20, 0.5, 'speed').project, X)!;
    expect(keys.map(({ frame, out }) => [frame, out.slope])).toEqual([
      [0, 0],
      [15, 1],
      [20, 0],
      [40, 0],
    ]);
    expect(scaleKeys(project, refs, 20, 0, 'speed').project).toBe(project);
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
    expect(framesOf(toWholeFrames(project, keysOffTheFrame(project)).project)).toEqual([0, 9.6, 10.3, 20]);
    expect(framesOf(toWholeFrames(project, [{ channel: X, frame: 9.6 }]).project)).toEqual([
      0, 10, 10.3, 20.4,
    ]);
    const merged = toWholeFrames(project, keysOffTheFrame(project), { merge: true }).project;
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
    const waiting = waitAfter(project, [{ channel: X, frame: 24 }], 40).project;
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
