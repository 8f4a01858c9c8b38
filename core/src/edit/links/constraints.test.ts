import type { Project, Result } from '../../project';
import { line, partOfRig, Rig, riggedProject } from '../../../testing/rigged';
import { constraintGap } from '../../reading';
import { readDocument, stripDefaults } from '../../file';
import {
  addConstraint,
  bakeConstraints,
  changeConstraint,
  isBaked,
  moveConstraint,
  moveSpan,
  plantArm,
  removeConstraint,
  unbakeConstraints,
} from './index';

function got<T>(made: Result<T>): T {
  if (!made.ok) throw new Error(made.problems.map(({ message }) => message).join());
  return made.value;
}

/** A crane on a base that slides by 0.46 m, its arm of two links, a block and a quay. */
const crane = riggedProject(
  [
    partOfRig('base'),
    partOfRig('boom', { parent: 'base', rest: { translate: [0, 2, 0], rotate: [0, 0, 40] } }),
    partOfRig('jib', { parent: 'boom', rest: { translate: [3, 0, 0], rotate: [0, 0, -80] } }),
    partOfRig('hook', { parent: 'jib', rest: { translate: [2.5, 0, 0] } }),
    partOfRig('block', { rest: { translate: [4, 0.5, 0] } }),
    partOfRig('mark', { rest: { translate: [4.1, 1.3, 0] } }),
  ],
  [],
  [
    line('base/translate.x', [60, 0], [110, 0.46], [140, 0.1]),
    line('mark/translate.y', [0, 1.3], [100, 1.9]),
  ],
  { range: { start: 0, end: 140 } },
);

const swing = riggedProject([partOfRig('boom')], [], [line('boom/rotate.z', [0, 40], [140, 52])]);

const distance = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((n, i) => n - b[i]!));
const gapAt = (project: Project, n: number, frame: number) =>
  constraintGap(new Rig(project).program, project, project.constraints[n]!, frame);

describe('constraints by hand', () => {
  it('are added with their defaults, changed and removed; the file stays a valid one', () => {
    const { project, id } = got(addConstraint(crane, 'aim', 'block', { target: 'mark', weight: 0.7 }));
    expect(project.constraints).toEqual([
      {
        id,
        kind: 'aim',
        part: 'block',
        muted: false,
        target: 'mark',
        axis: '-z',
        up: 'y',
        weight: 0.7,
        lag: null,
      },
    ]);
    expect(readDocument(stripDefaults({ ...project, edition: 2 })).ok).toBe(true);
    const changed = got(changeConstraint(project, id, { weight: 1 }));
    expect(gapAt(changed, 0, 0)!.amount).toBeLessThan(1e-6);
    expect(gapAt(project, 0, 0)).toMatchObject({ unit: '°' });
    expect(gapAt(project, 0, 0)!.amount).toBeGreaterThan(5);
    expect(removeConstraint(changed, id).constraints).toEqual([]);
    expect(got(addConstraint(project, 'aim', 'block', { target: 'mark' })).id).not.toBe(id);
  });

  it('are refused in one sentence where the whole would not hold together', () => {
    expect(addConstraint(crane, 'chase', 'base', { target: 'hook' })).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('hook') as string }],
    });
    expect(addConstraint(crane, 'plant', 'hook', { start: 9, end: 4 })).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/end must be at or after start/) as string }],
    });
    const { project, id } = got(addConstraint(crane, 'aim', 'block', { target: 'mark' }));
    expect(changeConstraint(project, id, { up: 'z' }).ok).toBe(false);
    expect(changeConstraint(project, 'nobody', {}).ok).toBe(false);
  });

  it('the hook reaches for its mark while the base slides, and a span moves by its ends or as a whole', () => {
    const reach = { middle: 'jib', tip: 'hook', target: 'mark', bend: -1 };
    const reaching = got(addConstraint(crane, 'reach', 'boom', reach)).project;
    for (const frame of [60, 83, 97.5, 119, 140])
      expect(gapAt(reaching, 0, frame)!.amount).toBeLessThan(1e-9);
    const planted = got(addConstraint(crane, 'plant', 'base', { start: 83, end: 119 }));
    expect(gapAt(planted.project, 0, 101)!.amount).toBeLessThan(1e-9);
    expect(gapAt(planted.project, 0, 130)).toBe(null);
    const [plant] = planted.project.constraints;
    expect(moveSpan(plant!, 'start', 4)).toEqual({ start: 87 });
    expect(moveSpan(plant!, 'start', 99)).toEqual({ start: 119 });
    expect(moveSpan(plant!, 'end', -99)).toEqual({ end: 83 });
    expect(moveSpan(plant!, 'both', 2)).toEqual({ start: 85, end: 121 });
    expect(moveSpan(reaching.constraints[0]!, 'both', 2)).toEqual({});
  });

  it('of one part act in their order, which can be changed', () => {
    const first = got(addConstraint(crane, 'aim', 'block', { target: 'mark' })).project;
    const other = got(addConstraint(first, 'plant', 'hook', { start: 0, end: 9 })).project;
    const both = got(addConstraint(other, 'attach', 'block', { target: 'hook', start: 10, end: 40 })).project;
    const moved = moveConstraint(both, both.constraints[2]!.id, -1);
    expect(moved.constraints.map(({ kind }) => kind)).toEqual(['attach', 'plant', 'aim']);
    expect(moveConstraint(moved, moved.constraints[0]!.id, -1)).toBe(moved);
  });

  it('a block carried becomes keys on every frame, and comes back', () => {
    const held = got(
      addConstraint(crane, 'attach', 'block', { target: 'hook', start: 62, end: 105 }),
    ).project;
    expect(gapAt(held, 0, 90)!.amount).toBeLessThan(1e-9);
    const baked = got(bakeConstraints(held, 'block'));
    expect(baked.constraints[0]!.muted).toBe(true);
    const [before, after] = [new Rig(held), new Rig(baked)];
    for (let frame = 0; frame <= 140; frame++)
      expect(
        distance(before.point('block', frame, [0, 1, 0]), after.point('block', frame, [0, 1, 0])),
      ).toBeLessThan(1e-9);
    expect(isBaked(baked, 'block')).toBe(true);
    const back = unbakeConstraints(baked, 'block');
    expect(back.constraints).toEqual(held.constraints);
    expect(back.clips).toEqual(held.clips);
    expect(back.parts).toBe(held.parts);
    expect(isBaked(back, 'block')).toBe(false);
    expect(bakeConstraints(crane, 'block').ok).toBe(false);
  });

  it('the end of an arm is planted in one press, twice, and goes on without a pop', () => {
    const moving: Project = {
      ...crane,
      clips: [{ ...crane.clips[0]!, curves: [...crane.clips[0]!.curves, ...swing.clips[0]!.curves] }],
    };
    const first = got(plantArm(moving, 'hook', 83, 119, 12)).project;
    const both = got(plantArm(first, 'hook', 20, 40, 12)).project;
    expect(both.constraints.map(({ kind }) => kind)).toEqual(['reach', 'plant', 'plant']);
    const [before, after] = [new Rig(moving), new Rig(both)];
    const place = (rig: Rig, frame: number) => rig.point('hook', frame);
    for (const frame of [0, 10, 19, 60, 70, 140])
      expect(distance(place(before, frame), place(after, frame))).toBeLessThan(1e-9);
    for (const [from, to] of [
      [83, 119],
      [20, 40],
    ] as const)
      for (let frame = from; frame <= to; frame += 0.5)
        expect(distance(place(after, frame), place(after, from))).toBeLessThan(1e-9);
    let pop = 0;
    for (let frame = 0; frame < 140; frame++)
      pop = Math.max(pop, distance(place(after, frame), place(after, frame + 1)));
    expect(pop).toBeLessThan(0.2);
    expect(plantArm(crane, 'base', 0, 10, 0).ok).toBe(false);
  });

  it('a reach baked takes the elbow along', () => {
    const reach = { middle: 'jib', tip: 'hook', target: 'mark', bend: -1 };
    const reaching = got(addConstraint(crane, 'reach', 'boom', reach)).project;
    const baked = got(bakeConstraints(reaching, 'boom'));
    const [before, after] = [new Rig(reaching), new Rig(baked)];
    for (let frame = 0; frame <= 140; frame += 5)
      expect(distance(before.point('hook', frame), after.point('hook', frame))).toBeLessThan(1e-9);
    expect(unbakeConstraints(baked, 'boom').clips).toEqual(reaching.clips);
  });
});
