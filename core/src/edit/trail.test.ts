import { curveOf, insertTrailKeys, moveTrailKey, trailChannels } from './index';
import { programOf, testProject } from '../../testing/project';

/** A cart on a rail that is turned by a quarter about Y and twice as large: its X is the world's −Z, in half metres. */
const project = testProject(
  {
    parts: [
      {
        id: 'rail',
        name: 'Rail',
        kind: 'group',
        rest: { translate: [1, 0, 0], rotate: [0, 90, 0], scale: [2, 2, 2] },
      },
      { id: 'cart', name: 'Cart', kind: 'group', parent: 'rail', pivot: [0, 1, 0] },
    ],
  },
  [
    {
      channel: 'cart/translate.x',
      keys: [
        { frame: 0, value: 0 },
        { frame: 20, value: 4 },
      ],
    },
    { channel: 'cart/translate.y', locked: true, keys: [{ frame: 0, value: 0 }] },
  ],
);
const program = programOf(project);
const pivotAt = (at: typeof project, frame: number) => {
  const world = new Float64Array(16);
  programOf(at).worldMatrix(1, frame, world);
  return [0, 1, 2].map((row) => world[4 + row]! + world[12 + row]!);
};

describe('keys on the motion trail', () => {
  it('move by a shift in the world, on channels that have keys only', () => {
    expect(trailChannels(project, program, 'cart')).toEqual(['cart/translate.x']);
    const moved = moveTrailKey(project, program, 'cart', 20, [0, 0, -1]);
    expect(curveOf(moved, 'cart/translate.x')!.keys[1]!.value).toBeCloseTo(4.5, 12);
    const [was, is] = [pivotAt(project, 20), pivotAt(moved, 20)];
    is.forEach((value, i) => expect(value - was[i]!).toBeCloseTo([0, 0, -1][i]!, 10));
    expect(moveTrailKey(project, program, 'cart', 20, [1, 5, 0])).toBe(project);
  });

  it('are added without changing the way, and where there is none one is made to be moved', () => {
    const added = insertTrailKeys(project, ['cart/translate.x'], 10);
    expect(pivotAt(added, 7.3)[2]).toBeCloseTo(pivotAt(project, 7.3)[2]!, 12);
    const moved = moveTrailKey(project, program, 'cart', 10, [0, 0, 2]);
    expect(pivotAt(moved, 10)[2]! - pivotAt(project, 10)[2]!).toBeCloseTo(2, 10);
    expect(pivotAt(moved, 20)).toEqual(pivotAt(project, 20));
  });
});
