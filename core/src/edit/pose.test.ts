import { keepPose, mirroredPose, poseAt, poseOfKinds, removeParts, removePose, renamePose } from './index';
import { readProject, writeProject } from '../file';
import { programOf, testProject } from '../../testing/project';

const project = testProject(
  {
    parts: [
      { id: 'crane', name: 'Crane', kind: 'group' },
      { id: 'arm-left', name: 'Left arm', kind: 'group', parent: 'crane', pivot: [0.5, 0, 0] },
      { id: 'arm-right', name: 'Right arm', kind: 'group', parent: 'crane', pivot: [-0.5, 0, 0] },
    ],
    drivers: [
      { id: 'd', target: 'crane/rotate.y', kind: 'echo', input: 'crane/translate.x', delay: 0, gain: 1 },
    ],
  },
  [
    {
      channel: 'crane/translate.x',
      keys: [
        { frame: 0, value: 1, out: { mode: 'linear' } },
        { frame: 40, value: 5, in: { mode: 'linear' } },
      ],
    },
  ],
);
const mirror = (values: Readonly<Record<string, number>>, across: 'x' | 'y' | 'z') =>
  Object.fromEntries(mirroredPose(project, new Map(Object.entries(values)), across));

describe('poses', () => {
  it('have every channel of their parts at a frame, driven ones left out', () => {
    const pose = poseAt(programOf(project), project, ['crane'], 10);
    expect(pose.get('crane/translate.x')).toBeCloseTo(2, 12);
    expect(pose.get('crane/scale.y')).toBe(1);
    expect(pose.has('crane/rotate.y')).toBe(false);
    expect([...poseOfKinds(pose, ['place']).keys()]).toEqual([
      'crane/translate.x',
      'crane/translate.y',
      'crane/translate.z',
    ]);
  });

  it('mirrored change their side of the plane, and turns about its axes their sense', () => {
    expect(
      mirror(
        {
          'crane/translate.x': 2,
          'crane/translate.y': 3,
          'crane/rotate.x': 10,
          'crane/rotate.y': 20,
          'crane/rotate.z': 0,
          'crane/scale.x': 1.5,
        },
        'x',
      ),
    ).toEqual({
      'crane/translate.x': -2,
      'crane/translate.y': 3,
      'crane/rotate.x': 10,
      'crane/rotate.y': -20,
      'crane/rotate.z': 0,
      'crane/scale.x': 1.5,
    });
  });

  it('go from a left part to its right counterpart, about the pivots', () => {
    expect(mirror({ 'arm-left/translate.x': 0.25, 'arm-left/rotate.z': 30 }, 'x')).toEqual({
      'arm-right/translate.x': -0.25,
      'arm-right/rotate.z': -30,
    });
  });

  it('mirrored twice are what they were', () => {
    const values = { 'crane/translate.z': 0.1, 'crane/rotate.x': 33, 'arm-left/translate.x': 0.25 };
    expect(mirror(mirror(values, 'z'), 'z')).toEqual(values);
    expect(mirror(mirror(values, 'x'), 'x')).toEqual(values);
  });

  it('stand on the shelf, come back from the file, and go with their parts', () => {
    const pose = { id: 'a', name: 'Lifted', values: { 'arm-left/rotate.z': 30 }, picture: null };
    const kept = renamePose(keepPose(keepPose(project, pose), pose), 'a', 'High');
    expect(kept.poses).toEqual([{ ...pose, name: 'High' }]);
    const read = readProject(writeProject(kept));
    expect(read.ok && read.value.poses).toEqual(kept.poses);
    expect(removeParts(kept, ['arm-left']).poses).toEqual([]);
    expect(removePose(kept, 'a').poses).toEqual([]);
  });

  it('naming a channel that is not there are refused with the place', () => {
    const read = readProject(
      JSON.stringify({ ...project, poses: [{ id: 'a', name: 'A', values: { 'boat/rotate.z': 1 } }] }),
    );
    expect(!read.ok && read.problems[0]?.pointer).toBe('/poses/0/values/boat~1rotate.z');
  });
});
