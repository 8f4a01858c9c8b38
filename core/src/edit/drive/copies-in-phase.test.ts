import type { Part, Project } from '../../project';
import { compile } from '../../evaluate';
import { copyAlong, copyAround } from '../build';
import { keyValues } from '../keys';
import { newPart } from '../new-part';
import { newProject } from '../new-project';
import { setOutside } from '../keys';
import { copiesInPhase, type Phase } from './copies-in-phase';
import { addDriver } from './drivers';

const LIFT = 'valve/translate.y';
const plain: Phase = { delay: 6, backwards: false, alternate: false, vary: 0, seed: 1 };

/** A valve that rises and falls in 24 frames for ever, with a flag on it that turns by a formula. */
function works(): Project {
  const parts: Part[] = [
    { ...newPart('box', 'Valve'), id: 'valve' },
    { ...newPart('box', 'Flag'), id: 'flag', parent: 'valve' },
  ];
  const keyed = keyValues({ ...newProject('p', 'P'), parts }, [
    { channel: LIFT, frame: 0, value: 0.5 },
    { channel: LIFT, frame: 12, value: 0.8 },
    { channel: LIFT, frame: 24, value: 0.5 },
    { channel: 'flag/rotate.x', frame: 0, value: 10 },
    { channel: 'flag/rotate.x', frame: 24, value: 10 },
  ]);
  const looped = (['before', 'after'] as const).reduce(
    (at, side) => setOutside(at, [LIFT], side, { mode: 'loop' }),
    keyed,
  );
  const made = addDriver(looped, 'expression', 'flag/rotate.z', {
    inputs: { y: LIFT },
    expression: 'y * 100',
  });
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value.project;
}

function read(project: Project): (channel: string, frame: number) => number {
  const program = compile(project);
  if (!program.ok) throw new Error(program.problems[0]!.message);
  return (channel, frame) => program.value.channelValue(program.value.structure.slots.get(channel)!, frame);
}

describe('copies in phase', () => {
  it('stand in their row and show the one master motion, each later, with what is driven within them', () => {
    const project = works();
    const made = copiesInPhase(project, 'valve', (still) => copyAlong(still, 'valve', 3, [0.5, 0, 0]), plain);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    const { copies } = made.value;
    expect(copies).toHaveLength(3);
    const value = read(made.value.project);
    for (const [n, id] of copies.entries()) {
      expect(value(`${id}/translate.x`, 0)).toBeCloseTo(0.5 * (n + 1), 12);
      for (const frame of [0, 5, 9.5, 30])
        expect(value(`${id}/translate.y`, frame)).toBeCloseTo(value(LIFT, frame - 6 * (n + 1)), 12);
      const flag = made.value.project.parts.find(({ parent }) => parent === id)!.id;
      expect(value(`${flag}/rotate.z`, 7)).toBeCloseTo(value(`${id}/translate.y`, 7) * 100, 9);
      expect(value(`${flag}/rotate.x`, 7)).toBeCloseTo(10, 12);
    }
    const higher = keyValues(made.value.project, [{ channel: LIFT, frame: 12, value: 1.1 }]);
    expect(read(higher)(`${copies[1]!}/translate.y`, 24)).toBeCloseTo(1.1, 12);
  });

  it('go backwards, mirrored in turn and a little irregular, the same for the same seed', () => {
    const place = (still: Project) => copyAround(still, 'valve', 3, 'y', 90, [0, 0, 0]);
    const make = (phase: Partial<Phase>) => {
      const made = copiesInPhase(works(), 'valve', place, { ...plain, ...phase });
      if (!made.ok) throw new Error(made.problems[0]!.message);
      const drivers = made.value.project.drivers.filter(({ target }) => target.endsWith('/translate.y'));
      return drivers.map((driver) => (driver.kind === 'echo' ? [driver.delay, driver.gain] : []));
    };
    expect(make({ backwards: true, alternate: true })).toEqual([
      [18, -1],
      [12, 1],
      [6, -1],
    ]);
    const varied = make({ vary: 2 });
    expect(varied).toEqual(make({ vary: 2 }));
    expect(varied).not.toEqual(make({ vary: 2, seed: 2 }));
    for (const [n, [delay]] of varied.entries())
      expect(Math.abs(delay! - 6 * (n + 1))).toBeLessThanOrEqual(2);
  });

  it('are refused where nothing moves', () => {
    const project = { ...works(), clips: newProject('p', 'P').clips };
    const made = copiesInPhase(project, 'valve', (still) => copyAlong(still, 'valve', 1, [1, 0, 0]), plain);
    expect(made.ok ? '' : made.problems[0]!.message).toMatch(/no motion that the copies could show/);
  });
});
