import { activeClip, type Project, type Result } from '../../project';
import { readDocument, stripDefaults } from '../../file';
import { line, partOfRig, Rig, riggedProject } from '../../../testing/rigged';
import { copyAlong, copyAround, groupParts, mirrorCopy } from './index';

function got<T>(made: Result<T>): T {
  if (!made.ok) throw new Error(made.problems.map(({ message }) => message).join());
  return made.value;
}

/** A rake on a beam: it rocks, and its tine rides on it, driven by it. */
const rake = riggedProject(
  [
    partOfRig('beam', { rest: { translate: [1, 2, 0], rotate: [0, 0, 20] } }),
    partOfRig('rake', {
      parent: 'beam',
      rest: { translate: [0.5, 0, 0.3], rotate: [0, 0, 10] },
      pivot: [0, 0.2, 0],
    }),
    partOfRig('tine', { parent: 'rake', rest: { translate: [0, -0.4, 0] } }),
  ],
  [{ kind: 'plant', part: 'tine', start: 5, end: 9 }],
  [line('rake/rotate.y', [0, -11], [30, 11]), line('rake/translate.x', [0, 0.5], [30, 1])],
  { drivers: [{ id: 'd', kind: 'echo', target: 'tine/rotate.z', input: 'rake/rotate.y', delay: 2 }] },
);

const minus = (a: readonly number[], b: readonly number[]) => a.map((n, i) => n - b[i]!);
const isWhole = (project: Project) => readDocument(stripDefaults(project as never)).ok;

describe('copies of a part', () => {
  it('stand in a row with all that rides on them, their keys and what drives them', () => {
    const { project, copies } = got(copyAlong(rake, 'rake', 3, [0, 0, 0.8]));
    expect(copies).toEqual(['rake-2', 'rake-3', 'rake-4']);
    expect(isWhole(project)).toBe(true);
    expect(project.parts.find(({ id }) => id === 'rake-3')).toMatchObject({ parent: 'beam', name: 'rake 3' });
    expect(project.drivers.map(({ target }) => target)).toEqual([
      'tine/rotate.z',
      'tine-2/rotate.z',
      'tine-3/rotate.z',
      'tine-4/rotate.z',
    ]);
    expect(project.constraints).toHaveLength(4);
    expect(project.clips).toHaveLength(1);
    expect(activeClip(project)!.curves).toHaveLength(8);
    const rig = new Rig(project);
    for (const frame of [0, 7, 30])
      expect(
        Math.hypot(...minus(minus(rig.point('rake-4', frame), rig.point('rake', frame)), [0, 0, 2.4])),
      ).toBeLessThan(1e-12);
  });

  it('stand round an axis, each turned on', () => {
    const { project } = got(copyAround(rake, 'rake', 5, 'z', 60, [0, 0, 0]));
    const rig = new Rig(project);
    const beam = rig.point('beam', 12);
    const far = (id: string) => Math.hypot(...minus(rig.point(id, 12), beam));
    for (const id of ['rake-2', 'rake-4', 'rake-6']) expect(far(id)).toBeCloseTo(far('rake'), 9);
    const [opposite, own] = [minus(rig.point('rake-4', 12), beam), minus(rig.point('rake', 12), beam)];
    expect(opposite[0]! + own[0]!).toBeCloseTo(0, 9);
    expect(isWhole(project)).toBe(true);
  });

  it('mirrored run the other way by the same keys, and every point is in the mirror', () => {
    const upright = {
      ...rake,
      parts: rake.parts.map((part) => ({ ...part, rest: { ...part.rest, rotate: [0, 0, 0] as const } })),
    };
    const { project, copies } = got(mirrorCopy(upright, 'rake', 'x'));
    const turns = activeClip(project)!.curves.find(({ channel }) => channel === `${copies[0]}/rotate.y`)!;
    expect(turns.keys.map(({ value }) => value)).toEqual([11, -11]);
    const rig = new Rig(project);
    for (const frame of [0, 11, 30]) {
      const [a, b] = [
        rig.point('rake', frame, [0.1, 0.2, 0.3]),
        rig.point(copies[0]!, frame, [0.1, 0.2, 0.3]),
      ];
      expect(a[0]! - 1).toBeCloseTo(-(b[0]! - 1), 9);
      expect(minus(a, b).slice(1).map(Math.abs)).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    }
  });

  it('are refused where their number makes no sense', () => {
    for (const count of [0, 1.5, 999]) expect(copyAlong(rake, 'rake', count, [1, 0, 0]).ok).toBe(false);
    expect(copyAlong(rake, 'nobody', 1, [1, 0, 0]).ok).toBe(false);
  });
});

describe('a group', () => {
  it('stands in the middle of what it holds, and nothing moves', () => {
    const { project, group } = got(groupParts(rake, ['rake', 'tine', 'beam'], 12));
    expect(project.parts.find(({ id }) => id === 'beam')!.parent).toBe(group);
    expect(project.parts.find(({ id }) => id === 'rake')!.parent).toBe('beam');
    const [before, after] = [new Rig(rake), new Rig(project)];
    for (const id of ['beam', 'rake', 'tine'])
      expect(Math.hypot(...minus(before.point(id, 12), after.point(id, 12)))).toBeLessThan(1e-12);
    expect(groupParts(rake, [], 0).ok).toBe(false);
  });
});
