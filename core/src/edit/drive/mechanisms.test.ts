import * as fc from 'fast-check';
import { channelName, partOf, type Part, type Project, type Vec3 } from '../../project';
import { compile, type Program } from '../../evaluate';
import { readDocument, writeProject } from '../../file';
import { inWorld } from '../../rig';
import { keyValues } from '../keys';
import { newPart, type NewPartKind } from '../new-part';
import { newProject } from '../new-project';
import type { Assembled } from './assembly';
import { assembleFourBar } from './four-bar';
import { assembleGears, assembleSliderCrank, assembleWheel } from './mechanisms';
import { assembleRope } from './rope';

const part = (kind: NewPartKind, id: string, more: object = {}): Part => ({
  ...newPart(kind, id),
  id,
  ...more,
});
const rest = (translate: Vec3, rotate: Vec3 = [0, 0, 0]) => ({
  translate,
  rotate,
  scale: [1, 1, 1] as const,
});

function compiled(project: Project): Program {
  const program = compile(project);
  if (!program.ok) throw new Error(JSON.stringify(program.problems));
  return program.value;
}

function made(result: ReturnType<typeof assembleGears>): Assembled {
  if (!result.ok) throw new Error(result.problems[0]!.message);
  return result.value;
}

/** Where a point of a part's own space is in the world at a frame. */
function placeAt(project: Project, id: string, point: Vec3, frame: number): Vec3 {
  const program = compiled(project);
  const world = new Float64Array(16);
  program.worldMatrix(program.structure.partIndex.get(id)!, frame, world);
  return inWorld(world, point);
}

function valueAt(project: Project, channel: string, frame: number): number {
  const program = compiled(project);
  return program.channelValue(program.structure.slots.get(channel)!, frame);
}

const apart = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const turning = (project: Project, channel: string, degrees: number) =>
  keyValues(project, [
    { channel, frame: 0, value: 0 },
    { channel, frame: 100, value: degrees },
  ]);

describe('a crank, a rod and a slider', () => {
  const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

  it('stay together to 1e-9 m at every angle, in any plane and to any side, with pivots anywhere', () => {
    const set = fc.record({
      plane: fc.constantFrom(0, 1, 2),
      side: fc.constantFrom(0, 1, 2, 3),
      crank: between(0.1, 0.6),
      angle: between(-170, 170),
      rod: between(1.3, 2.5),
      offset: between(-0.4, 0.4),
      centre: fc.tuple(between(-2, 2), between(-2, 2), between(-2, 2)),
      pivot: fc.tuple(between(-1, 1), between(-1, 1), between(-1, 1)),
    });
    fc.assert(
      fc.property(set, ({ plane, side, crank, angle, rod, offset, centre, pivot }) => {
        const [i, j] = [(plane + 1) % 3, (plane + 2) % 3];
        const [cos, sin] = [Math.cos((side * Math.PI) / 2), Math.sin((side * Math.PI) / 2)];
        const put = (x: number, y: number): Vec3 => {
          const at = [...centre];
          at[i] = at[i]! + x * cos - y * sin;
          at[j] = at[j]! + x * sin + y * cos;
          return at as unknown as Vec3;
        };
        const a = (angle * Math.PI) / 180;
        const pin = [crank * Math.cos(a), crank * Math.sin(a)] as const;
        const slide = pin[0] + Math.sqrt(rod ** 2 - (offset - pin[1]) ** 2);
        const minus = (p: Vec3, q: Vec3): Vec3 => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];
        const turnOf = `rotate.${'xyz'.charAt(plane)}`;
        const project = turning(
          {
            ...newProject('p', 'P'),
            parts: [
              part('box', 'crank', { pivot, rest: rest(minus(put(0, 0), pivot)) }),
              part('box', 'rod', { rest: rest(put(...pin)) }),
              part('box', 'pump', { pivot, rest: rest(minus(put(slide, offset), pivot)) }),
            ],
          },
          `crank/${turnOf}`,
          720,
        );
        const ids = { crank: 'crank', rod: 'rod', slider: 'pump' };
        const { project: rigged } = made(assembleSliderCrank(project, ids, 0));
        const pinOwn = minus(put(...pin), minus(put(0, 0), pivot));
        const endOwn = minus(put(slide, offset), put(...pin));
        for (const frame of [0, 3.7, 21, 48, 77.3]) {
          expect(
            apart(placeAt(rigged, 'crank', pinOwn, frame), placeAt(rigged, 'rod', [0, 0, 0], frame)),
          ).toBeLessThan(1e-9);
          expect(
            apart(placeAt(rigged, 'rod', endOwn, frame), placeAt(rigged, 'pump', pivot, frame)),
          ).toBeLessThan(1e-9);
        }
      }),
      { numRuns: 120 },
    );
  });

  it('are refused in a sentence where they can’t stay together', () => {
    const project: Project = {
      ...newProject('p', 'P'),
      parts: [part('box', 'a'), part('box', 'b', { parent: 'a' }), part('box', 'c')],
    };
    const refusal = (ids: { crank: string; rod: string; slider: string }) => {
      const result = assembleSliderCrank(project, ids, 0);
      return result.ok ? '' : result.problems[0]!.message;
    };
    expect(refusal({ crank: 'a', rod: 'b', slider: 'c' })).toMatch(/ride on the same part/);
    expect(refusal({ crank: 'a', rod: 'a', slider: 'c' })).toMatch(/one piece/);
  });

  it('are a project that is written and read again', () => {
    const project: Project = {
      ...newProject('p', 'P'),
      parts: [
        part('box', 'crank', { rest: rest([0, 0, 0]) }),
        part('box', 'rod', { rest: rest([0.3, 0, 0]) }),
        part('box', 'pump', { rest: rest([1.5, 0, 0]) }),
      ],
    };
    const { project: rigged, read } = made(
      assembleSliderCrank(project, { crank: 'crank', rod: 'rod', slider: 'pump' }, 0),
    );
    expect(read).toBe('crank 0.3 m, rod 1.2 m');
    const again = readDocument(JSON.parse(writeProject(rigged)));
    expect(again.ok && again.value.drivers).toEqual(rigged.drivers);
  });
});

describe('a wheel on its wagon', () => {
  it('rolls without slipping whichever way its axle points: the point on the ground stands still', () => {
    for (const [rotate, along] of [
      [[90, 0, 0], 'x'],
      [[-90, 0, 0], 'x'],
      [[0, 0, 90], 'z'],
    ] as const) {
      const project = turning(
        {
          ...newProject('p', 'P'),
          parts: [
            part('group', 'wagon'),
            part('cylinder', 'wheel', {
              parent: 'wagon',
              geometry: { shape: 'cylinder', radius: 0.2, height: 0.1 },
              rest: { ...rest([0, 0.4, 0], [...rotate]), scale: [2, 2, 2] },
              turnOrder: rotate[2] === 0 ? 'XYZ' : 'ZXY',
            }),
          ],
        },
        `wagon/translate.${along}`,
        7.3,
      );
      const { project: rigged } = made(assembleWheel(project, { wheel: 'wheel', wagon: 'wagon' }, along, 0));
      const program = compiled(rigged);
      const world = new Float64Array(16);
      const wheel = program.structure.partIndex.get('wheel')!;
      program.worldMatrix(wheel, 40, world);
      const at = inWorld(world, [0, 0, 0]);
      const ground: Vec3 = [at[0], 0, at[2]];
      const inverse = [0, 1, 2].map((n) =>
        [0, 1, 2].reduce((sum, k) => sum + (world[n * 4 + k]! / 4) * (ground[k]! - at[k]!), 0),
      );
      const step = 1e-4;
      const before = placeAt(rigged, 'wheel', inverse as unknown as Vec3, 40 - step);
      const after = placeAt(rigged, 'wheel', inverse as unknown as Vec3, 40 + step);
      const wagonWay = apart(
        placeAt(rigged, 'wagon', [0, 0, 0], 40 - step),
        placeAt(rigged, 'wagon', [0, 0, 0], 40 + step),
      );
      expect(apart(before, after) / wagonWay).toBeLessThan(1e-3);
    }
  });
});

describe('two gears', () => {
  it.each([0, 180])('turn by their teeth, and teeth meet gaps: the other axle turned by %d°', (turned) => {
    const gear = (id: string, teeth: number, at: Vec3, rotate: Vec3) =>
      part('gear', id, {
        geometry: { shape: 'gear', teeth, module: 0.05, width: 0.1 },
        rest: rest(at, rotate),
      });
    const project = turning(
      {
        ...newProject('p', 'P'),
        parts: [
          gear('small', 17, [0, 0, 0], [0, 11, 0]),
          gear('large', 53, [Math.cos(1) * 1.75, 0, Math.sin(1) * 1.75], [turned, 5, 0]),
        ],
      },
      'small/rotate.y',
      360,
    );
    const { project: rigged, read } = made(assembleGears(project, { driving: 'small', driven: 'large' }, 0));
    expect(read).toBe('17 : 53 teeth');
    const ratio = valueAt(rigged, 'large/rotate.y', 100) - valueAt(rigged, 'large/rotate.y', 0);
    expect(ratio).toBeCloseTo(((turned === 0 ? -1 : 1) * 360 * 17) / 53, 9);
    for (const frame of [0, 13, 71.5]) {
      const line = (id: string, other: string, teeth: number): number => {
        const [from, to] = [placeAt(rigged, id, [0, 0, 0], frame), placeAt(rigged, other, [0, 0, 0], frame)];
        const far: Vec3 = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
        const axis = (point: Vec3) => {
          const tip = placeAt(rigged, id, point, frame);
          return (tip[0] - from[0]) * far[0] + (tip[1] - from[1]) * far[1] + (tip[2] - from[2]) * far[2];
        };
        return (Math.atan2(-axis([0, 0, 1]), axis([1, 0, 0])) * teeth) / (2 * Math.PI);
      };
      const [a, b] = [line('small', 'large', 17), line('large', 'small', 53)];
      const meeting = turned === 0 ? a + b : a - b;
      const share = meeting - Math.floor(meeting);
      expect(Math.abs(share - 0.5)).toBeLessThan(1e-6);
    }
    expect(partOf(rigged, 'large')!.custom).toEqual([]);
    expect(channelName('large', 'rotate.y')).toBe(rigged.drivers[0]!.target);
  });
});

describe('four bars', () => {
  it('stay together to 1e-9 m at every angle, in any plane, on either branch', () => {
    const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const set = fc.record({
      plane: fc.constantFrom(0, 1, 2),
      heading: between(-180, 180),
      angle: between(-170, 170),
      branch: fc.constantFrom(1, -1),
      crank: between(0.1, 0.3),
      coupler: between(0.9, 1.1),
      rocker: between(0.6, 0.8),
      centre: fc.tuple(between(-2, 2), between(-2, 2), between(-2, 2)),
      pivot: fc.tuple(between(-1, 1), between(-1, 1), between(-1, 1)),
    });
    fc.assert(
      fc.property(set, ({ plane, heading, angle, branch, crank, coupler, rocker, centre, pivot }) => {
        const [i, j] = [(plane + 1) % 3, (plane + 2) % 3];
        const turned = (x: number, y: number, by: number) => {
          const [cos, sin] = [Math.cos((by * Math.PI) / 180), Math.sin((by * Math.PI) / 180)];
          return [x * cos - y * sin, x * sin + y * cos] as const;
        };
        const put = (x: number, y: number): Vec3 => {
          const [u, v] = turned(x, y, heading);
          const at = [...centre];
          at[i] = at[i]! + u;
          at[j] = at[j]! + v;
          return at as unknown as Vec3;
        };
        const pin = turned(crank, 0, angle);
        const far = Math.hypot(1 - pin[0], -pin[1]);
        const along = (far ** 2 + coupler ** 2 - rocker ** 2) / (2 * far);
        const aside = branch * Math.sqrt(coupler ** 2 - along ** 2);
        const [ux, uy] = [(1 - pin[0]) / far, -pin[1] / far];
        const joint = [pin[0] + along * ux - aside * uy, pin[1] + along * uy + aside * ux] as const;
        const minus = (p: Vec3, q: Vec3): Vec3 => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];
        const onRocker = minus(put(...joint), minus(put(1, 0), pivot));
        const project = turning(
          {
            ...newProject('p', 'P'),
            parts: [
              part('box', 'crank', { pivot, rest: rest(minus(put(0, 0), pivot)) }),
              part('box', 'coupler', { rest: rest(put(...pin)) }),
              part('box', 'rocker', { pivot, rest: rest(minus(put(1, 0), pivot)) }),
              part('box', 'pin', { parent: 'rocker', rest: rest(onRocker) }),
            ],
          },
          `crank/rotate.${'xyz'.charAt(plane)}`,
          720,
        );
        const ids = { crank: 'crank', coupler: 'coupler', rocker: 'rocker', pin: 'pin' };
        const { project: rigged, read } = made(assembleFourBar(project, ids, 0));
        expect(read).not.toContain('Grashof');
        const pinOwn = minus(put(...pin), minus(put(0, 0), pivot));
        const jointOwn = minus(put(...joint), put(...pin));
        for (const frame of [0, 3.7, 21, 48, 77.3]) {
          expect(
            apart(placeAt(rigged, 'crank', pinOwn, frame), placeAt(rigged, 'coupler', [0, 0, 0], frame)),
          ).toBeLessThan(1e-9);
          expect(
            apart(placeAt(rigged, 'coupler', jointOwn, frame), placeAt(rigged, 'pin', [0, 0, 0], frame)),
          ).toBeLessThan(1e-9);
        }
      }),
      { numRuns: 120 },
    );
  });

  it('that can’t turn all the way round say so; a piece that lies on another is refused', () => {
    const parts = (joint: Vec3): Project => ({
      ...newProject('p', 'P'),
      parts: [
        part('box', 'crank'),
        part('box', 'coupler', { rest: rest([0.6, 0, 0]) }),
        part('box', 'rocker', { rest: rest([1, 0, 0]) }),
        part('box', 'pin', { rest: rest(joint) }),
      ],
    });
    const ids = { crank: 'crank', coupler: 'coupler', rocker: 'rocker', pin: 'pin' };
    expect(made(assembleFourBar(parts([0.8, 0.5, 0]), ids, 0)).read).toMatch(/can’t turn all the way round/);
    expect(assembleFourBar(parts([1, 0, 0]), ids, 0).ok).toBe(false);
  });
});

describe('rope and drum', () => {
  it('wind in by the radius times the angle, towards the drum, from where both stand', () => {
    const project = turning(
      {
        ...newProject('p', 'P'),
        parts: [
          part('cylinder', 'drum', {
            geometry: { shape: 'cylinder', radius: 0.4, height: 1 },
            rest: rest([5, 3, 0], [90, 0, 0]),
          }),
          part('box', 'skip', { rest: rest([1.5, 0, 0]) }),
        ],
      },
      'drum/rotate.y',
      450,
    );
    const { project: rigged, read } = made(assembleRope(project, { drum: 'drum', load: 'skip' }, 'x', 0));
    expect(read).toBe('drum of radius 0.4 m');
    expect(valueAt(rigged, 'skip/translate.x', 0)).toBeCloseTo(1.5, 12);
    expect(valueAt(rigged, 'skip/translate.x', 100)).toBeCloseTo(1.5 + 0.4 * 2.5 * Math.PI, 9);
    const lowered = made(assembleRope(project, { drum: 'drum', load: 'skip' }, 'y', 100)).project;
    expect(valueAt(lowered, 'skip/translate.y', 100)).toBeCloseTo(0, 12);
    expect(valueAt(lowered, 'skip/translate.y', 0)).toBeCloseTo(-0.4 * 2.5 * Math.PI, 9);
    expect(assembleRope(project, { drum: 'skip', load: 'drum' }, 'x', 0).ok).toBe(false);
  });
});
