import fc from 'fast-check';
import {
  addTreatment,
  changeRateKeepingSeconds,
  closeGap,
  curveName,
  curveOf,
  curveRef,
  deleteKeys,
  followCurves,
  followKeys,
  moveKeys,
  moveStakes,
  moveTreatment,
  newTreatment,
  openGap,
  push,
  removeTreatment,
  reverseTime,
  scaleKeys,
  setTreatment,
  stretch,
  timeAfter,
  toWholeFrames,
  waitAfter,
  weightChannel,
  weightCurve,
  type Edited,
  type KeyRef,
} from './index';
import type { Project } from '../project';
import { X, Y, drawn, projectOf, refsOf } from '../../testing/drawn-curve';
import { testProject } from '../../testing/project';

/** The values of some keys, by which they are known whatever frames they stand on. */
function valuesOf(project: Project, refs: readonly KeyRef[]): number[] {
  return refs.map(
    ({ channel, frame }) => curveOf(project, channel)!.keys.find((key) => key.frame === frame)!.value,
  );
}

/** A drawn curve whose keys are all told apart by their values. */
function numbered(project: Project): Project {
  const [clip] = project.clips;
  const curves = clip!.curves.map((curve) => ({
    ...curve,
    keys: curve.keys.map((key, i) => ({ ...key, value: i + 1 })),
  }));
  return { ...project, clips: [{ ...clip!, curves }] };
}

describe('what pointed at keys points at the same keys', () => {
  const edits: readonly (readonly [string, (project: Project, at: number, by: number) => Edited])[] = [
    [
      'moved',
      (project, at, by) => moveKeys(project, refsOf(project).slice(0, 2), { frames: by - at, value: 0 }),
    ],
    ['scaled in time', (project, at) => scaleKeys(project, refsOf(project), at, 1.7, 'shape')],
    ['pushed later', (project, at, by) => push(project, [X, Y], at, by, 'after')],
    ['pushed earlier', (project, at, by) => push(project, [X, Y], at, -by, 'before')],
    ['after a gap opened', (project, at, by) => openGap(project, [X, Y], at, by)],
    ['after a gap closed', (project, at, by) => closeGap(project, [X, Y], at, at + by)],
    [
      'stretched',
      (project, at, by) =>
        stretch(
          project,
          [X],
          { start: at, end: at + by },
          { start: at, end: at + 3 * by },
          'follows',
          'shape',
        ),
    ],
    [
      'between Stakes',
      (project, at, by) =>
        moveStakes(
          project,
          [X],
          [
            { from: at, to: at },
            { from: at + by, to: at + 2 * by },
          ],
          'shape',
        ),
    ],
    ['after waits', (project, _, by) => waitAfter(project, refsOf(project).slice(0, 1), by)],
    ['at another rate', (project) => changeRateKeepingSeconds(project, { frames: 30, per: 1 })],
  ];

  it.each(edits)('%s, and at none of those that went', (_, edit) => {
    fc.assert(
      fc.property(
        drawn,
        fc.integer({ min: -5, max: 90 }),
        fc.integer({ min: 1, max: 40 }),
        (shape, at, by) => {
          const before = numbered(projectOf(shape));
          const edited = edit(before, at, by);
          const known = new Set(curveOf(edited.project, X)?.keys.map(({ value }) => value));
          const refs = refsOf(before);
          const there = refs.filter((_, i) => known.has(i + 1));
          const followed = followKeys(refs, before, edited);
          expect(valuesOf(edited.project, followed)).toEqual(valuesOf(before, there));
          expect(followKeys(refsOf(before, Y), before, edited)).toHaveLength(2);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('put on whole frames: those that moved are followed, those that would fall together stay', () => {
    const frames = [0, 9.6, 10.3, 20.4];
    const keys = frames.map((frame, i) => ({ frame, value: i }));
    const before = testProject({}, [{ channel: X, keys }]);
    const edited = toWholeFrames(before, refsOf(before));
    expect(followKeys(refsOf(before), before, edited).map(({ frame }) => frame)).toEqual([0, 9.6, 10.3, 20]);
    const merged = toWholeFrames(before, refsOf(before), { merge: true });
    expect(followKeys(refsOf(before), before, merged).map(({ frame }) => frame)).toEqual([0, 10, 20]);
  });

  it('run backwards: seen from the other end', () => {
    const keys = [0, 10, 30].map((frame) => ({ frame, value: frame }));
    const before = testProject({}, [{ channel: X, keys }]);
    const edited = reverseTime(before, [X], { start: 0, end: 30 });
    expect(followKeys(refsOf(before), before, edited).map(({ frame }) => frame)).toEqual([30, 20, 0]);
  });

  it('deleted: none; and an edit elsewhere leaves the very same list', () => {
    const before = testProject({}, [
      { channel: X, keys: [0, 10, 20].map((frame) => ({ frame, value: frame })) },
      { channel: Y, keys: [{ frame: 5, value: 1 }] },
    ]);
    const refs = refsOf(before);
    const without = deleteKeys(before, [refs[1]!]);
    expect(followKeys(refs, before, { project: without, mapping: {} })).toEqual([refs[0], refs[2]]);
    const elsewhere = moveKeys(before, refsOf(before, Y), { frames: 3, value: 0 });
    expect(followKeys(refs, before, elsewhere)).toBe(refs);
  });
});

describe('what stands on the ruler', () => {
  const base = testProject({}, [{ channel: X, keys: [0, 40].map((frame) => ({ frame, value: frame })) }]);

  it('goes with time that is moved, and stays where only keys are', () => {
    expect(timeAfter(openGap(base, [X], 10, 5).mapping, 12)).toBe(17);
    expect(timeAfter(closeGap(base, [X], 10, 15).mapping, 12)).toBe(10);
    expect(timeAfter(changeRateKeepingSeconds(base, { frames: 48, per: 1 }).mapping, 12)).toBe(24);
    expect(timeAfter(moveKeys(base, refsOf(base), { frames: 3, value: 0 }).mapping, 12)).toBe(12);
  });
});

describe('addresses of curves', () => {
  const [noise, clamp] = [newTreatment('noise', 0.5), newTreatment('clamp', 1)];
  const bare = testProject({}, [
    {
      channel: X,
      keys: [
        { frame: 0, value: 1 },
        { frame: 20, value: 2 },
      ],
    },
  ]);
  const laid = [noise, clamp].reduce((at, each) => addTreatment(at, X, each), bare);
  const weighed = setTreatment(laid, X, 1, { ...clamp, weight: weightCurve(1, 0, 20) });
  const weight = weightChannel(X, 1);

  it('are read back as they were written', () => {
    for (const ref of [
      { of: 'channel', channel: X },
      { of: 'weight', channel: X, treatment: 12 },
    ] as const)
      expect(curveRef(curveName(ref))).toEqual(ref);
  });

  it('go with a treatment that changes its place, with the keys chosen on its weight', () => {
    const moved = moveTreatment(weighed, X, 1, 0);
    expect(followCurves([X, weight, weightChannel(X, 0)], moved.mapping)).toEqual([
      X,
      weightChannel(X, 0),
      weight,
    ]);
    expect(followKeys([{ channel: weight, frame: 20 }], weighed, moved)).toEqual([
      { channel: weightChannel(X, 0), frame: 20 },
    ]);
  });

  it('go with a treatment before them that is taken away, and are gone with their own', () => {
    expect(followCurves([weight], removeTreatment(weighed, X, 0).mapping)).toEqual([weightChannel(X, 0)]);
    expect(followCurves([X, weight], removeTreatment(weighed, X, 1).mapping)).toEqual([X]);
    expect(followKeys([{ channel: weight, frame: 20 }], weighed, removeTreatment(weighed, X, 1))).toEqual([]);
  });
});
