import type { Part, Project, Vec3 } from '../../project';
import { compile, pivotAt, worldAt } from '../../evaluate';
import { inWorld } from '../../rig';
import { keyValues } from '../keys';
import { newPart } from '../new-part';
import { newProject } from '../new-project';
import { addCamPart } from './cam-part';
import { addDriver } from './drivers';

const ROLLER = 0.04;

/** A shaft that turns about one of its axes, and a valve that a cam lifts along a way across it. */
function works(letter: 'x' | 'y' | 'z', rotate: Vec3, valve: Vec3, lifted: 'x' | 'y' | 'z'): Project {
  const rest = (translate: Vec3, turn: Vec3 = [0, 0, 0]) => ({
    translate,
    rotate: turn,
    scale: [1, 1, 1] as const,
  });
  const parts: Part[] = [
    { ...newPart('cylinder', 'Shaft'), id: 'shaft', pivot: [0.1, 0.2, 0], rest: rest([1, 2, 3], rotate) },
    { ...newPart('box', 'Valve'), id: 'valve', rest: rest(valve) },
  ];
  const turned = keyValues({ ...newProject('p', 'P'), parts }, [
    { channel: `shaft/rotate.${letter}`, frame: 0, value: rotate['xyz'.indexOf(letter)]! },
    { channel: `shaft/rotate.${letter}`, frame: 120, value: 540 },
  ]);
  const made = addDriver(turned, 'linkage', `valve/translate.${lifted}`, {
    linkage: 'cam',
    inputs: { angle: `shaft/rotate.${letter}` },
    output: 'lift',
    combine: 'add',
    params: {
      program: [
        { to: 100, lift: 0.1, law: 'modified-sine' },
        { to: 150, law: 'dwell' },
        { to: 260, lift: 0, law: 'cycloidal' },
        { to: 360, law: 'dwell' },
      ],
    },
  });
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value.project;
}

/** How near the edge of the cam comes to the roller's middle at a frame. */
function nearest(project: Project, cam: string, frame: number): number {
  const compiled = compile(project);
  if (!compiled.ok) throw new Error(compiled.problems[0]!.message);
  const program = compiled.value;
  const part = project.parts.find(({ id }) => id === cam)!;
  if (part.kind !== 'mesh' || part.geometry.shape !== 'extrude') throw new Error('the cam is no outline');
  const world = worldAt(program, cam, frame);
  const [x, y, z] = pivotAt(program, project, 'valve', frame);
  const { outline } = part.geometry;
  const edge = outline.map(([a, b]) => inWorld(world, [a, b, 0]));
  return Math.min(
    ...edge.map((from, i) => {
      const to = edge[(i + 1) % edge.length]!;
      const way = [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const;
      const at = [x - from[0], y - from[1], z - from[2]] as const;
      const along = way[0] * at[0] + way[1] * at[1] + way[2] * at[2];
      const share = Math.min(1, Math.max(0, along / (way[0] ** 2 + way[1] ** 2 + way[2] ** 2)));
      return Math.hypot(at[0] - share * way[0], at[1] - share * way[1], at[2] - share * way[2]);
    }),
  );
}

describe('the disc of a cam', () => {
  it.each([
    ['z', [0, 0, 0], [1.1, 2.75, 3], 'y'],
    ['z', [0, 0, 40], [1.6, 2.2, 3], 'x'],
    ['y', [90, 0, 0], [1.1, 2.75, 3], 'y'],
    ['x', [0, 0, 0], [1.1, 2.2, 3.5], 'z'],
  ] as const)(
    'runs under the roller wherever its shaft stands: about %s',
    (letter, rotate, valve, lifted) => {
      const project = works(letter, rotate, valve, lifted);
      const made = addCamPart(project, project.drivers[0]!.id, { roller: ROLLER, width: 0.1 }, 0);
      if (!made.ok) throw new Error(made.problems[0]!.message);
      expect(made.value.read).toMatch(/^base circle of radius 0\.\d+ m$/);
      for (const frame of [0, 11, 23.5, 30, 47, 58, 71, 99, 120])
        expect(Math.abs(nearest(made.value.project, made.value.id, frame) - ROLLER)).toBeLessThan(2e-4);
    },
  );

  it('is refused where there is no room, or the cam reads no turn', () => {
    const project = works('z', [0, 0, 0], [1.1, 2.22, 3], 'y');
    const tight = addCamPart(project, project.drivers[0]!.id, { roller: ROLLER, width: 0.1 }, 0);
    expect(tight.ok ? '' : tight.problems[0]!.message).toMatch(/no room for a cam under a roller/);
    expect(addCamPart(project, 'nothing', { roller: ROLLER, width: 0.1 }, 0).ok).toBe(false);
  });
});
