import { activeClip, type Project, type Result } from '../../project';
import { readDocument, stripDefaults } from '../../file';
import { line, partOfRig, Rig, riggedProject } from '../../../testing/rigged';
import {
  addMove,
  addTargetShape,
  changeMove,
  copyAlong,
  copyAround,
  groupParts,
  mirrorCopy,
  removeTargetShape,
  renameTargetShape,
} from './index';

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

  it('goes into a group of the same name', () => {
    const once = got(groupParts(rake, ['rake'], 12));
    const twice = got(groupParts(once.project, ['rake'], 12));
    expect(twice.group).not.toBe(once.group);
    const parentOf = (id: string) => twice.project.parts.find((part) => part.id === id)!.parent;
    expect([parentOf('rake'), parentOf(twice.group)]).toEqual([twice.group, once.group]);
    const [before, after] = [new Rig(rake), new Rig(twice.project)];
    expect(Math.hypot(...minus(before.point('tine', 12), after.point('tine', 12)))).toBeLessThan(1e-12);
  });
});

describe('target shapes made here', () => {
  const cloth = riggedProject(
    [{ id: 'tarpaulin', name: 'Tarpaulin', kind: 'mesh', geometry: { shape: 'plane', size: [2, 2] } }],
    [],
  );
  const dent = { at: [0, 0, 0], radius: 0.8, by: [0, -0.3, 0], scale: 1 } as const;

  it('each counts from the base and several add; they are renamed with their keys and removed with them', () => {
    const { project: one, name } = addTargetShape(cloth, 'tarpaulin', 'Dent', dent);
    const { project: two, name: other } = addTargetShape(one, 'tarpaulin', 'Dent', {
      ...dent,
      by: [0.2, 0, 0],
    });
    expect([name, other]).toEqual(['Dent', 'Dent 2']);
    const swollen = changeMove(
      addMove(two, 'tarpaulin', 'Dent 2', { ...dent, by: [0, 0, 0.1] }),
      'tarpaulin',
      'Dent',
      0,
      {
        radius: 0.4,
      },
    );
    expect(isWhole({ ...swollen, edition: 2 })).toBe(true);
    const keyed: Project = {
      ...swollen,
      clips: [
        {
          ...swollen.clips[0]!,
          curves: riggedProject(
            [...swollen.parts],
            [],
            [line('tarpaulin/morph.Dent', [0, 0], [10, 1]), line('tarpaulin/morph.Dent 2', [0, 1], [10, 1])],
          ).clips[0]!.curves,
        },
      ],
      poses: [{ id: 'p', name: 'P', picture: null, values: { 'tarpaulin/morph.Dent': 0.5 } }],
    };
    const place = (project: Project, frame: number) => new Rig(project).point('tarpaulin', frame);
    expect(place(keyed, 0)).toEqual([0.2, 0, 0.1].map((n) => expect.closeTo(n, 12) as unknown));
    expect(place(keyed, 10)).toEqual([0.2, -0.3, 0.1].map((n) => expect.closeTo(n, 12) as unknown));
    const { project: renamed, mapping } = renameTargetShape(keyed, 'tarpaulin', 'Dent', 'Worn/top');
    expect(mapping.curve!('tarpaulin/morph.Dent')).toBe('tarpaulin/morph.Worn%2Ftop');
    expect(place(renamed, 10)).toEqual(place(keyed, 10));
    expect(Object.keys(renamed.poses[0]!.values)).toEqual(['tarpaulin/morph.Worn%2Ftop']);
    expect(isWhole({ ...renamed, edition: 2 })).toBe(true);
    expect(renameTargetShape(keyed, 'tarpaulin', 'Dent', 'Dent 2').project).toBe(keyed);
    const { project: gone, mapping: after } = removeTargetShape(renamed, 'tarpaulin', 'Worn/top');
    expect(after.curve!('tarpaulin/morph.Worn%2Ftop')).toBe(null);
    expect(gone.poses).toEqual([]);
    expect(activeClip(gone)!.curves).toHaveLength(1);
    expect(isWhole({ ...gone, edition: 2 })).toBe(true);
  });
});
