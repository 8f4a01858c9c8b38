import fc from 'fast-check';
import {
  changeCurves,
  copyKeys,
  CONVERT_TOLERANCE,
  curveOf,
  deleteKeys,
  handlePlace,
  insertKeys,
  keysAddedByInsert,
  keyValues,
  moveKeys,
  pasteKeys,
  placeHandle,
  setCurveFlag,
  setJoined,
  setLeg,
  setOutside,
  setReach,
  setSideMode,
  setSpeed,
} from './index';
import { EASE_FAMILIES, type Leg, type Project } from '../project';
import { deepFreeze, programOf, slotOf, testProject } from '../../testing/project';
import { expectClose } from '../../testing/rates';

const X = 'wagon/translate.x';
const Y = 'wagon/translate.y';
const base = testProject({}, [
  {
    channel: X,
    keys: [
      { frame: 0, value: 0 },
      { frame: 10, value: 2 },
      { frame: 24, value: 1 },
      { frame: 40, value: 5 },
    ],
  },
  { channel: Y, keys: [{ frame: 5, value: 1 }] },
]);
const keysOf = (project: Project, channel = X) =>
  curveOf(project, channel)?.keys.map(({ frame, value }) => [frame, value]);
const ref = (frame: number, channel = X) => ({ channel, frame });

function samples(project: Project, channel = X): number[] {
  const program = programOf(deepFreeze(project));
  return Array.from({ length: 401 }, (_, i) => program.channelValue(slotOf(program, channel), i / 8 - 5));
}

describe('keying values', () => {
  it('makes a curve, a key in order, or gives a key another value', () => {
    expect(keysOf(keyValues(base, [{ ...ref(7, 'wagon/scale.x'), value: 3 }]), 'wagon/scale.x')).toEqual([
      [7, 3],
    ]);
    expect(keysOf(keyValues(base, [{ ...ref(12), value: 9 }]))).toEqual([
      [0, 0],
      [10, 2],
      [12, 9],
      [24, 1],
      [40, 5],
    ]);
    expect(keysOf(keyValues(base, [{ ...ref(10), value: 9 }]))).toEqual([
      [0, 0],
      [10, 9],
      [24, 1],
      [40, 5],
    ]);
  });

  it('leaves every other curve the same object, and a no-op the same project', () => {
    const changed = keyValues(base, [{ ...ref(10), value: 9 }]);
    expect(curveOf(changed, Y)).toBe(curveOf(base, Y));
    expect(keyValues(base, [{ ...ref(10), value: 2 }])).toBe(base);
    expect(moveKeys(base, [ref(10)], { frames: 0, value: 0 }).project).toBe(base);
  });

  it('never touches a locked curve', () => {
    const locked = setCurveFlag(base, [X], 'locked', true);
    expect(keyValues(locked, [{ ...ref(10), value: 9 }])).toBe(locked);
    expect(deleteKeys(locked, [ref(10)])).toBe(locked);
    expect(curveOf(setCurveFlag(locked, [X], 'locked', false), X)?.locked).toBe(false);
  });
});

describe('inserting a key', () => {
  const legs: Leg[] = [
    { kind: 'curve' },
    { kind: 'hold' },
    { kind: 'ballistic' },
    ...EASE_FAMILIES.map((family): Leg => ({ kind: 'ease', family, slow: 'both' })),
    { kind: 'law', law: 's-curve' },
    { kind: 'law', law: 'modified-sine' },
  ];

  it('does not change the shape, for any sides, loops and places', () => {
    const side = fc.record({
      mode: fc.constantFrom('smooth', 'bounded', 'flat', 'linear', 'set'),
      slope: fc.double({ min: -1, max: 1, noNaN: true }),
      reach: fc.double({ min: 0.1, max: 0.8, noNaN: true }),
    });
    const key = fc.record({ value: fc.double({ min: -3, max: 3, noNaN: true }), in: side, out: side });
    const outside = fc.constantFrom('hold', 'loop', 'loop-carry', 'run-on', 'swing');
    fc.assert(
      fc.property(
        fc.array(key, { minLength: 4, maxLength: 4 }),
        outside,
        outside,
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        fc.integer({ min: 0, max: 2 }),
        (list, before, after, share, leg) => {
          const frames = [0, 10, 24, 40];
          const keys = list.map((k, i) => ({ ...k, frame: frames[i], joined: false }));
          const project = testProject({}, [
            { channel: X, keys, before: { mode: before }, after: { mode: after } },
          ]);
          const frame = frames[leg]! + share * (frames[leg + 1]! - frames[leg]!);
          const inserted = insertKeys(project, [ref(frame)]);
          expect(curveOf(inserted, X)!.keys).toHaveLength(5);
          const was = samples(project);
          samples(inserted).forEach((value, i) => expectClose(value, was[i]!, 1e-9));
        },
      ),
    );
  });

  it.each(
    legs.map((leg) => ({
      leg,
      name: leg.kind + ('family' in leg ? leg.family : 'law' in leg ? leg.law : ''),
    })),
  )('keeps a leg of $name', ({ leg }) => {
    const project = setLeg(base, [ref(10)], leg);
    const inserted = insertKeys(project, [ref(15)]);
    const added = curveOf(inserted, X)!.keys.length - 4;
    expect(added).toBe(keysAddedByInsert(project, ref(15)));
    const exact = leg.kind === 'curve' || leg.kind === 'hold' || leg.kind === 'ballistic';
    if (exact) expect(added).toBe(1);
    const was = samples(project);
    samples(inserted).forEach((value, i) =>
      expect(Math.abs(value - was[i]!)).toBeLessThanOrEqual(exact ? 1e-12 : 4 * CONVERT_TOLERANCE),
    );
  });
});

describe('moving keys', () => {
  it('moves, copies, reorders, and takes the place of a key it lands on', () => {
    expect(keysOf(moveKeys(base, [ref(10), ref(24)], { frames: 3, value: 1 }).project)).toEqual([
      [0, 0],
      [13, 3],
      [27, 2],
      [40, 5],
    ]);
    expect(keysOf(moveKeys(base, [ref(10)], { frames: 20, value: 0 }).project)).toEqual([
      [0, 0],
      [24, 1],
      [30, 2],
      [40, 5],
    ]);
    expect(keysOf(moveKeys(base, [ref(10)], { frames: 14, value: 0 }).project)).toEqual([
      [0, 0],
      [24, 2],
      [40, 5],
    ]);
    expect(keysOf(moveKeys(base, [ref(10)], { frames: 4, value: 0, copy: true }).project)).toEqual([
      [0, 0],
      [10, 2],
      [14, 2],
      [24, 1],
      [40, 5],
    ]);
  });

  it('takes a pin along, and drops it when its key is no longer inside', () => {
    const pinned = setOutside(base, [X], 'after', { mode: 'loop', pin: 10 });
    expect(curveOf(moveKeys(pinned, [ref(10)], { frames: 3, value: 0 }).project, X)!.after.pin).toBe(13);
    expect(curveOf(moveKeys(pinned, [ref(10)], { frames: -30, value: 0 }).project, X)!.after.pin).toBeNull();
    expect(curveOf(deleteKeys(pinned, [ref(10)]), X)!.after.pin).toBeNull();
    expect(curveOf(setOutside(base, [X], 'after', { mode: 'loop', pin: 11 }), X)!.after.pin).toBeNull();
  });

  it('keeps the order of keys, none nearer than the least gap, whatever is moved', () => {
    fc.assert(
      fc.property(
        fc.subarray([0, 10, 24, 40]),
        fc.double({ min: -50, max: 50, noNaN: true }),
        fc.boolean(),
        (frames, by, copy) => {
          const keys = curveOf(
            moveKeys(
              base,
              frames.map((frame) => ref(frame)),
              { frames: by, value: 0, copy },
            ).project,
            X,
          )!.keys;
          for (let i = 1; i < keys.length; i++)
            expect(keys[i]!.frame - keys[i - 1]!.frame).toBeGreaterThanOrEqual(1e-6);
        },
      ),
    );
  });

  it('copies and pastes with sides and legs, onto other channels too', () => {
    const copied = copyKeys(setLeg(base, [ref(10)], { kind: 'hold' }), [ref(10), ref(24)]);
    expect(keysOf(pasteKeys(base, copied, 50).project)).toEqual([
      [0, 0],
      [10, 2],
      [24, 1],
      [40, 5],
      [50, 2],
      [64, 1],
    ]);
    const { project, refs } = pasteKeys(base, copied, 20, [Y]);
    expect(keysOf(project, Y)).toEqual([
      [5, 1],
      [20, 2],
      [34, 1],
    ]);
    expect(curveOf(project, Y)!.keys[1]!.leg.kind).toBe('hold');
    expect(refs).toEqual([ref(20, Y), ref(34, Y)]);
  });

  it('pastes nothing where a channel is locked or gone, and names no keys there', () => {
    const copied = copyKeys(base, [ref(10), ref(24)]);
    const locked = setCurveFlag(base, [X], 'locked', true);
    expect(pasteKeys(locked, copied, 50)).toEqual({ project: locked, refs: [] });
    const gone = { ...base, parts: [], clips: base.clips.map((clip) => ({ ...clip, curves: [] })) };
    expect(pasteKeys(gone, copied, 50)).toEqual({ project: gone, refs: [] });
  });
});

describe('sides and handles', () => {
  it('sets both sides of a joined key, and one of a split one; linear splits', () => {
    const flat = curveOf(setSideMode(base, [ref(10)], 'out', 'flat'), X)!.keys[1]!;
    expect([flat.in.mode, flat.out.mode, flat.joined]).toEqual(['flat', 'flat', true]);
    const linear = curveOf(setSideMode(base, [ref(10)], 'out', 'linear'), X)!.keys[1]!;
    expect([linear.in.mode, linear.out.mode, linear.joined]).toEqual(['smooth', 'linear', false]);
    const split = curveOf(setSideMode(setJoined(base, [ref(10)], false), [ref(10)], 'in', 'flat'), X)!
      .keys[1]!;
    expect([split.in.mode, split.out.mode]).toEqual(['flat', 'smooth']);
  });

  it('set keeps the slope the side had', () => {
    samples(setSideMode(base, [ref(10)], 'out', 'set')).forEach((value, i) =>
      expectClose(value, samples(base)[i]!, 1e-12),
    );
  });

  it('speed is in units per second', () => {
    const program = programOf(setSpeed(base, [ref(10)], 'out', 3));
    expectClose(program.channelRates(slotOf(program, X), 10)[1], 3, 1e-12);
  });

  it('a handle is found where it was put, inside its leg', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<'in' | 'out'>('in', 'out'),
        fc.double({ min: 0.02, max: 0.95, noNaN: true }),
        fc.double({ min: -4, max: 4, noNaN: true }),
        (side, share, value) => {
          const frame = side === 'out' ? 10 + 14 * share : 10 - 10 * share;
          const placed = placeHandle(base, { ...ref(10), side }, frame, value);
          const found = handlePlace(placed, curveOf(placed, X)!, 1, side)!;
          expectClose(found.frame, frame, 1e-12);
          expectClose(found.value, value, 1e-12);
        },
      ),
    );
    const far = placeHandle(base, { ...ref(10), side: 'out' }, 90, 2);
    expect(curveOf(far, X)!.keys[1]!.out.reach).toBe(0.99);
    expect(curveOf(setReach(base, [ref(10)], 'in', 7), X)!.keys[1]!.in.reach).toBe(0.99);
  });
});

describe('changing curves', () => {
  it('drops a curve that lost its last key', () => {
    expect(curveOf(deleteKeys(base, [ref(5, Y)]), Y)).toBeUndefined();
    expect(changeCurves(base, ['wagon/scale.z'], (curve) => curve)).toBe(base);
  });
});
