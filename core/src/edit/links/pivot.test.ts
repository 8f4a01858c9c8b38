import fc from 'fast-check';
import { activeClip, TURN_ORDERS, type Part, type Project, type Result, type Vec3 } from '../../project';
import { programOf } from '../../../testing/project';
import { keyValues } from '../keys';
import { newPart } from '../new-part';
import { newProject } from '../new-project';
import { changeTurnOrder, movePivot, type Reframed } from './pivot';

const number = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true });
const vector = (least: number, most: number) =>
  fc.tuple(number(least, most), number(least, most), number(least, most));

function got(made: Result<Reframed>): Reframed {
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
}

/** A flap with a child, keyed as told. */
function flap(change: Partial<Part>, keys: readonly [string, number, number][]): Project {
  const base: Project = {
    ...newProject('p', 'P'),
    parts: [
      { ...newPart('box', 'Flap'), id: 'flap', ...change } as Part,
      { ...newPart('box', 'Handle'), id: 'handle', parent: 'flap' },
    ],
  };
  return keyValues(
    base,
    keys.map(([channel, frame, value]) => ({ channel: `flap/${channel}`, frame, value })),
  );
}

/** How far the flap and its handle move, at most, over all whole frames. */
function farthest(before: Project, after: Project): number {
  const [a, b] = [programOf(before), programOf(after)];
  const [m, n] = [new Float64Array(16), new Float64Array(16)];
  let off = 0;
  for (let frame = 0; frame <= before.range.end; frame++)
    for (const part of [0, 1]) {
      a.worldMatrix(part, frame, m);
      b.worldMatrix(part, frame, n);
      off = Math.max(off, ...m.map((value, i) => Math.abs(value - n[i]!)));
    }
  return off;
}

describe('a pivot moved', () => {
  it('moves no frame of a keyed flap, whatever its turn order, size and squash', () => {
    fc.assert(
      fc.property(
        vector(-2, 2),
        vector(-2, 2),
        vector(0.3, 2),
        fc.constantFrom(...TURN_ORDERS),
        fc.constantFrom('part', 'parent'),
        (from, to, scale, turnOrder, frame) => {
          const project = flap(
            {
              pivot: from,
              turnOrder,
              rest: { translate: [1, 0, -2], rotate: [10, 20, 30], scale },
              squash: { axis: 'y', anchor: [0, -0.5, 0], frame },
            },
            [
              ['rotate.x', 0, 0],
              ['rotate.x', 40, 95],
              ['translate.y', 20, 0],
              ['translate.y', 90, 2],
              ['squash', 30, 0],
              ['squash', 50, -0.4],
            ],
          );
          const { project: moved } = got(movePivot(project, 'flap', to));
          expect(moved.parts[0]!.pivot).toEqual(to);
          expect(farthest(project, moved)).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('of a part at rest is one number; along the axis it turns about it needs no key', () => {
    const still = flap({ rest: { translate: [0, 0, 0], rotate: [0, 0, 90], scale: [1, 1, 1] } }, []);
    const { project, everyFrame } = got(movePivot(still, 'flap', [1, 0, 0]));
    expect(everyFrame).toBe(false);
    expect(project.clips).toBe(still.clips);
    expect(project.parts[0]!.rest.translate).toEqual([-1, 1, 0].map((n) => expect.closeTo(n, 12) as unknown));
    const spinning = flap({}, [
      ['rotate.z', 0, 0],
      ['rotate.z', 60, 400],
    ]);
    const along = got(movePivot(spinning, 'flap', [0, 0, 3]));
    expect(along.everyFrame).toBe(false);
    expect(activeClip(along.project)!.curves).toHaveLength(1);
    expect(got(movePivot(spinning, 'flap', [0, -0.5, 0])).everyFrame).toBe(true);
  });

  it('is refused in a sentence where a driver gives the place', () => {
    const project: Project = {
      ...flap({}, [
        ['rotate.z', 0, 0],
        ['rotate.z', 60, 90],
      ]),
      drivers: [
        {
          id: 'd',
          kind: 'expression',
          target: 'flap/translate.x',
          inputs: {},
          expression: '1',
          combine: 'replace',
          muted: false,
        },
      ],
    };
    expect(movePivot(project, 'flap', [1, 0, 0])).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/^Flap is driven/) as string }],
    });
  });
});

describe('another turn order', () => {
  it('keeps every frame, and one axis alone keeps its keys', () => {
    fc.assert(
      fc.property(
        vector(-170, 170),
        fc.constantFrom(...TURN_ORDERS),
        fc.constantFrom(...TURN_ORDERS),
        (turn: Vec3, from, to) => {
          const project = flap({ turnOrder: from }, [
            ['rotate.x', 0, 0],
            ['rotate.x', 50, turn[0]],
            ['rotate.y', 10, turn[1]],
            ['rotate.z', 10, 0],
            ['rotate.z', 30, turn[2]],
          ]);
          expect(farthest(project, got(changeTurnOrder(project, 'flap', to)).project)).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 40 },
    );
    const alone = flap({}, [
      ['rotate.y', 0, 0],
      ['rotate.y', 50, 800],
    ]);
    const { project, everyFrame } = got(changeTurnOrder(alone, 'flap', 'ZYX'));
    expect(everyFrame).toBe(false);
    expect(project.clips).toBe(alone.clips);
  });
});
