import { compile, keyValues, readDocument, type Project } from '@kaizen/core';
import { Euler, Matrix4, Vector3 } from 'three';
import type { ChannelValue } from '../posing/poser';
import type { Evaluated } from '../stage/stage';
import { axesOf, moved, readPose, readPoses, sized, turned, type Handling } from './part-pose';
import { shadowMatrix } from './ground';
import { DRAWN } from './surroundings';
import { trailBeads } from './trail';
import { acrossMotion, sideOn } from './side-on';

/** A jib on a mast that is turned and scaled, as posing by hand meets it. */
function jib(curves: readonly object[] = []): Project {
  const read = readDocument({
    format: 'kaizen',
    version: 1,
    id: 'p',
    name: 'P',
    rate: { frames: 24, per: 1 },
    range: { start: 0, end: 24 },
    parts: [
      {
        id: 'mast',
        name: 'Mast',
        kind: 'group',
        rest: { translate: [1, 0, 0], rotate: [0, 90, 0], scale: [2, 2, 2] },
      },
      {
        id: 'jib',
        name: 'Jib',
        kind: 'group',
        parent: 'mast',
        pivot: [0, 1, 0],
        rest: { translate: [0, 0, 1], rotate: [20, 0, 0], scale: [1, 1, 1] },
      },
    ],
    clips: [{ id: 'main', name: 'Main', curves }],
    activeClip: 'main',
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

function evaluated(project: Project, values: readonly ChannelValue[] = []): Evaluated {
  const keyed = keyValues(
    project,
    values.map((entry) => ({ ...entry, frame: 0 })),
  );
  const compiled = compile(keyed);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  const out = compiled.value.createOutput();
  compiled.value.run(0, out);
  return { program: compiled.value, out, frame: 0 };
}

const project = jib();
const by = (fields: Partial<Handling>): Handling => ({
  space: 'own',
  axis: 0,
  amount: 0,
  point: null,
  view: new Matrix4(),
  ...fields,
});
const pose = readPose(evaluated(project), 'jib')!;
const after = (values: readonly ChannelValue[]) => readPose(evaluated(project, values), 'jib')!;

describe('posing by hand', () => {
  it('knows where the pivot is in the world, and no part that is not there', () => {
    expect(pose.pivot.distanceTo(new Vector3(3, 2, 0))).toBeLessThan(1e-12);
    expect(readPose(evaluated(project), 'boom')).toBeNull();
  });

  it('moves the pivot by just the shift, through a parent that is turned and scaled', () => {
    const shift = new Vector3(0.3, -0.2, 0.7);
    const values = moved(pose, shift);
    expect(values.map(({ channel }) => channel)).toEqual([
      'jib/translate.x',
      'jib/translate.y',
      'jib/translate.z',
    ]);
    expect(after(values).pivot.distanceTo(pose.pivot.clone().add(shift))).toBeLessThan(1e-6);
  });

  it('names only the channels that change', () => {
    expect(moved(pose, new Vector3(0, 0.5, 0))).toEqual([{ channel: 'jib/translate.y', value: 0.25 }]);
    expect(turned(pose, by({ amount: 15 }))).toEqual([{ channel: 'jib/rotate.x', value: 35 }]);
    expect(sized(pose, by({ axis: 2, amount: 1.5 }))).toEqual([{ channel: 'jib/scale.z', value: 1.5 }]);
    expect(sized(pose, by({ axis: null, amount: 2 })).map(({ value }) => value)).toEqual([2, 2, 2]);
    expect(moved(pose, new Vector3())).toEqual([]);
  });

  it.each(['own', 'parent', 'world', 'view'] as const)(
    'turns about an axis of the %s: the axis stays, the others go round it',
    (space) => {
      const view = new Matrix4().makeRotationFromEuler(new Euler(0.3, -0.7, 0.2));
      const [, axis, aside] = axesOf(pose, space, view);
      const next = after(turned(pose, by({ space, axis: 1, amount: 40, view })));
      const own = (of: typeof pose) => axesOf(of, 'own', view);
      own(pose).forEach((direction, i) => {
        const expected = direction.clone().applyAxisAngle(axis, (40 * Math.PI) / 180);
        expect(own(next)[i]!.distanceTo(expected)).toBeLessThan(1e-6);
      });
      expect(aside.length()).toBeCloseTo(1, 12);
      expect(next.pivot.distanceTo(pose.pivot)).toBeLessThan(1e-9);
    },
  );
});

describe('posing about a point, and several parts', () => {
  it('turns and sizes about the point: its distance stays, or grows by the factor', () => {
    const point = new Vector3(1, 0.5, -2);
    const turnedPose = after(turned(pose, by({ space: 'world', axis: 1, amount: 90, point })));
    const spoke = pose.pivot.clone().sub(point);
    const expected = new Vector3(spoke.z, spoke.y, -spoke.x).add(point);
    expect(turnedPose.pivot.distanceTo(expected)).toBeLessThan(1e-5);
    const sizedPose = after(sized(pose, by({ axis: null, amount: 2, point })));
    expect(sizedPose.pivot.clone().sub(point).distanceTo(spoke.multiplyScalar(2))).toBeLessThan(1e-5);
  });

  it('takes parts once: what hangs below another chosen part goes along with it', () => {
    expect(readPoses(evaluated(project), ['jib', 'mast']).map(({ part }) => part.id)).toEqual(['mast']);
    expect(readPoses(evaluated(project), ['jib', 'boom']).map(({ part }) => part.id)).toEqual(['jib']);
  });
});

describe('the motion trail', () => {
  const linear = { in: { mode: 'linear' }, out: { mode: 'linear' }, joined: false };
  const moving = jib([
    {
      channel: 'mast/translate.z',
      keys: [
        { frame: 0, value: 0, ...linear },
        { frame: 12, value: 3, ...linear, leg: { kind: 'hold' } },
        { frame: 24, value: 5, ...linear },
      ],
    },
  ]);
  const { program } = evaluated(moving);
  const beads = trailBeads(moving, program, 'mast');

  it('has a bead a frame where the pivot is, the keys marked', () => {
    expect(beads).toHaveLength(25);
    expect(beads[6]!.place.distanceTo(new Vector3(1, 0, 1.5))).toBeLessThan(1e-9);
    expect(beads.filter((bead) => bead.key).map((bead) => bead.frame)).toEqual([0, 12, 24]);
  });

  it('knows the speed just after each frame in metres a second, and a jump over a hold', () => {
    expect(beads[6]!.speed).toBeCloseTo((3 / 12) * 24, 6);
    expect(beads[15]!.speed).toBe(0);
    expect(beads.filter((bead) => bead.jumps).map((bead) => bead.frame)).toEqual([23]);
  });

  it('is looked at side on, so that the motion reads left to right', () => {
    const away = acrossMotion(beads);
    const right = new Vector3().crossVectors(new Vector3(0, 1, 0), away);
    expect(right.distanceTo(new Vector3(0, 0, 1))).toBeLessThan(1e-9);
    expect(acrossMotion([]).toArray()).toEqual([0, 0, 1]);
  });

  it('is looked at past what stands before it', () => {
    const across = acrossMotion(beads);
    const before = (place: Vector3, away: Vector3) => place.z > 2 && away.dot(across) > 0;
    expect(sideOn(beads, () => false)).toEqual({ away: across, cuts: false });
    expect(sideOn(beads, before)).toEqual({ away: across, cuts: true });
  });
});

describe('the flat shadow', () => {
  it('lies on the floor, along the light', () => {
    const place = new Vector3(1, 3, -2);
    const shadow = place.clone().applyMatrix4(shadowMatrix(0.5, DRAWN.towards));
    expect(shadow.y).toBeCloseTo(0.502, 9);
    const along = place.clone().sub(shadow).normalize();
    expect(along.distanceTo(DRAWN.towards)).toBeLessThan(1e-9);
  });
});
