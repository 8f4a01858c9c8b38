import fc from 'fast-check';
import { compile } from '../../evaluate';
import { activeClip, TURN_ORDERS, type Part, type Project, type Vec3 } from '../../project';
import { ride, type Keeps, type Ridden } from './ride';
import { keyValues } from '../keys';
import { newPart } from '../new-part';
import { newProject } from '../new-project';

const vector = (least: number, most: number) =>
  fc
    .array(fc.double({ min: least, max: most, noNaN: true }), { minLength: 3, maxLength: 3 })
    .map(([x, y, z]): Vec3 => [x!, y!, z!]);
const rest = (scale: fc.Arbitrary<Vec3>) =>
  fc.record({ translate: vector(-5, 5), rotate: vector(-300, 300), scale });
const even = fc.double({ min: 0.2, max: 3, noNaN: true }).map((s): Vec3 => [s, s, s]);

function worldOf(project: Project, id: string, frame = 0): Float64Array {
  const compiled = compile(project);
  if (!compiled.ok) throw new Error('does not compile');
  const out = new Float64Array(16);
  compiled.value.worldMatrix(
    project.parts.findIndex((part) => part.id === id),
    frame,
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

function rides(project: Project, id: string, parent: string | null, keeps: Keeps, frame = 0): Ridden {
  const made = ride(project, id, parent, keeps, frame);
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
}

/** How far the numbers of two matrices are apart. */
const apart = (a: Float64Array, b: Float64Array) => Math.max(...a.map((value, i) => Math.abs(value - b[i]!)));

const vectorOf = (x: number, y = 0, z = 0): Vec3 => [x, y, z];
const still = { translate: vectorOf(0), rotate: vectorOf(0), scale: vectorOf(1, 1, 1) };
const key = (channel: string, frame: number, value: number) => ({ channel, frame, value });

describe('a part that comes to ride on another', () => {
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
          const { project: hung, because, jump } = rides(project, 'c', parent, 'place');
          expect(because).toBe(null);
          expect(jump).toBeLessThan(1e-9);
          expect(hung.parts[2]!.parent).toBe(parent);
          expect(apart(worldOf(project, 'c'), worldOf(hung, 'c'))).toBeLessThan(1e-8);
        },
      ),
    );
  });

  it('keeps its numbers where that is asked for, and tells how far it jumps', () => {
    const project = rig({ ...still, translate: vectorOf(1) }, { ...still, translate: vectorOf(0, 3) }, still);
    const made = rides(project, 'c', 'b', 'numbers');
    expect(made.jump).toBeCloseTo(Math.hypot(1, 3), 12);
    expect(made.project.parts[2]!.rest).toBe(still);
  });

  it('goes on with its own motion: the rack’s rocking keeps its very keys on the carriage that runs', () => {
    const carriage = { ...still, translate: vectorOf(2, 0.5) };
    let project = rig(still, carriage, {
      ...still,
      translate: vectorOf(3.55, 0.64),
      rotate: vectorOf(0, 20),
    });
    project = keyValues(project, [
      key('b/translate.x', 0, 0),
      key('b/translate.x', 60, 7.3),
      key('c/rotate.z', 0, -11),
      key('c/rotate.z', 30, 11),
    ]);
    const { project: hung, keys, jump } = rides(project, 'c', 'b', 'place', 21);
    expect(keys).toBe('stay');
    expect(jump).toBeLessThan(1e-9);
    const rocking = activeClip(project)!.curves.find(({ channel }) => channel === 'c/rotate.z');
    expect(activeClip(hung)!.curves.find(({ channel }) => channel === 'c/rotate.z')).toBe(rocking);
    expect(worldOf(hung, 'c', 60)[12]! - worldOf(hung, 'c', 0)[12]!).toBeCloseTo(7.3, 9);
  });

  it('moves keys by one amount where that is all that is needed: a spin on a turned parent', () => {
    const turned = { ...still, rotate: vectorOf(0, 0, 30) };
    let project = rig(still, turned, { ...still, rotate: vectorOf(0, 0, 0) });
    project = keyValues(project, [key('c/rotate.z', 0, 0), key('c/rotate.z', 30, 720)]);
    const { project: hung, keys } = rides(project, 'c', 'b', 'place', 0);
    expect(keys).toBe('moved');
    const spin = activeClip(hung)!.curves.find(({ channel }) => channel === 'c/rotate.z')!;
    expect(spin.keys.map(({ value }) => value)).toEqual([expect.closeTo(-30, 9), expect.closeTo(690, 9)]);
  });

  it('stays in its whole motion, whatever moves above it: every frame is where it was', () => {
    fc.assert(
      fc.property(
        rest(even),
        rest(even),
        rest(even),
        vector(-2, 2),
        vector(-90, 90),
        fc.constantFrom(...TURN_ORDERS),
        (a, b, c, pivot, turn, turnOrder) => {
          let project = rig(a, b, c, { pivot, turnOrder });
          project = keyValues(project, [
            key('b/rotate.y', 0, 0),
            key('b/rotate.y', 40, turn[0]),
            key('c/translate.x', 10, 0),
            key('c/translate.x', 70, turn[1] / 20),
            key('c/rotate.x', 10, 0),
            key('c/rotate.x', 30, turn[2]),
          ]);
          const { project: hung, because } = rides(project, 'c', 'b', 'motion', 0);
          expect(because).toBe(null);
          for (const frame of [0, 1, 17, 40, 41, 70, 120])
            expect(apart(worldOf(project, 'c', frame), worldOf(hung, 'c', frame))).toBeLessThan(1e-8);
          const { project: back } = rides(hung, 'c', 'a', 'motion', 0);
          expect(apart(worldOf(project, 'c', 33), worldOf(back, 'c', 33))).toBeLessThan(1e-8);
        },
      ),
      { numRuns: 20 },
    );
  });

  it('is not bent: where its place would need shear it keeps its numbers, and so where a driver gives it', () => {
    const uneven = { ...still, scale: vectorOf(1, 3, 1) };
    const tilted = { ...still, rotate: vectorOf(0, 0, 30) };
    expect(rides(rig(tilted, uneven, tilted), 'c', 'b', 'place')).toMatchObject({ because: 'shear' });
    const moved = { ...still, translate: vectorOf(5) };
    const driven: Project = {
      ...rig(moved, still, still),
      drivers: [
        {
          id: 'd',
          kind: 'expression',
          target: 'c/translate.x',
          inputs: {},
          expression: 'frame',
          combine: 'replace',
          muted: false,
        },
      ],
    };
    expect(rides(driven, 'c', 'b', 'place')).toMatchObject({ because: 'driven', jump: 5 });
  });

  it('can’t ride on itself or on what rides on it', () => {
    const project = rig(still, still, still);
    expect(ride(project, 'a', 'c', 'place', 0)).toMatchObject({
      ok: false,
      problems: [{ message: 'A can’t ride on C: C rides on A' }],
    });
    expect(ride(project, 'a', 'a', 'place', 0)).toMatchObject({ ok: false });
  });
});
