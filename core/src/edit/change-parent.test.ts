import fc from 'fast-check';
import { compile } from '../evaluate';
import { TURN_ORDERS, type Part, type Project, type Vec3 } from '../project';
import { changeParent } from './change-parent';
import { keyValues } from './keys';
import { newPart } from './new-part';
import { newProject } from './new-project';

const vector = (least: number, most: number) =>
  fc
    .array(fc.double({ min: least, max: most, noNaN: true }), { minLength: 3, maxLength: 3 })
    .map(([x, y, z]): Vec3 => [x!, y!, z!]);
const rest = (scale: fc.Arbitrary<Vec3>) =>
  fc.record({ translate: vector(-5, 5), rotate: vector(-300, 300), scale });
const even = fc.double({ min: 0.2, max: 3, noNaN: true }).map((s): Vec3 => [s, s, s]);

function worldOf(project: Project, id: string): Float64Array {
  const compiled = compile(project);
  if (!compiled.ok) throw new Error('does not compile');
  const out = new Float64Array(16);
  compiled.value.worldMatrix(
    project.parts.findIndex((part) => part.id === id),
    0,
    out,
  );
  return out;
}
const rig = (a: Part['rest'], b: Part['rest'], c: Part['rest'], more: Partial<Part> = {}): Project => ({
  ...newProject('p', 'P'),
  parts: [
    { ...newPart('group', 'A'), id: 'a', rest: a },
    { ...newPart('group', 'B'), id: 'b', rest: b },
    { ...newPart('box', 'C'), id: 'c', rest: c, parent: 'a', ...more } as Part,
  ],
});

describe('a part hung below another', () => {
  it('stays where it is in the world, with any pivot and turn order', () => {
    fc.assert(
      fc.property(
        rest(even),
        rest(even),
        rest(vector(0.2, 3)),
        vector(-2, 2),
        fc.constantFrom(...TURN_ORDERS),
        fc.constantFrom('b', null),
        (a, b, c, pivot, turnOrder, parent) => {
          const project = rig(a, b, c, { pivot, turnOrder });
          const { project: hung, stayed } = changeParent(project, 'c', parent, true, 0);
          expect(stayed).toBe(true);
          expect(hung.parts[2]!.parent).toBe(parent);
          const [before, after] = [worldOf(project, 'c'), worldOf(hung, 'c')];
          before.forEach((value, i) => expect(after[i]).toBeCloseTo(value, 8));
        },
      ),
    );
  });

  it('keeps its numbers where that is asked for, or where it moves, and says which', () => {
    const plain = { translate: [1, 0, 0], rotate: [0, 0, 0], scale: [1, 1, 1] } as const;
    const project = rig(plain, plain, plain);
    expect(changeParent(project, 'c', 'b', false, 0)).toMatchObject({ stayed: false, because: 'not-asked' });
    const keyed = keyValues(project, [{ channel: 'c/rotate.y', frame: 0, value: 3 }]);
    const moved = changeParent(keyed, 'c', 'b', true, 0);
    expect(moved).toMatchObject({ stayed: false, because: 'moves' });
    expect(moved.project.parts[2]).toMatchObject({ parent: 'b', rest: plain });
  });

  it('is not bent: where its place would need shear it keeps its numbers', () => {
    const uneven = { translate: [0, 0, 0], rotate: [0, 0, 0], scale: [1, 3, 1] } as const;
    const tilted = { translate: [0, 0, 0], rotate: [0, 0, 30], scale: [1, 1, 1] } as const;
    expect(changeParent(rig(tilted, uneven, tilted), 'c', 'b', true, 0)).toMatchObject({ because: 'shear' });
  });
});
