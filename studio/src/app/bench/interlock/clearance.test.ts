import '@angular/compiler';
import { compile, emptyCurve, newKey, newPart, newProject, type Part, type Project } from '@kaizen/core';
import { commandFakes } from '../../testing/command-fakes';
import { PairClearance, passingFrames } from './clearance';
import { InterlockCommands } from './interlock-commands';
import { MeasuredClearances } from './measured-clearances';

function box(id: string, size: readonly [number, number, number], rest: Partial<Part['rest']> = {}): Part {
  const part = newPart('box', id);
  return {
    ...part,
    id,
    rest: { ...part.rest, ...rest },
    ...(part.kind === 'mesh' ? { geometry: { shape: 'box' as const, size } } : {}),
  };
}

/** A wagon of 2 m that runs along X past a gate of 0.4 m, which turns by 45° about Y at x = 3, its middle 2 m to the side. */
function works(): Project {
  const project = newProject('works', 'Works');
  return {
    ...project,
    parts: [
      box('wagon', [2, 1, 1]),
      box('gate', [0.4, 1, 0.4], { translate: [3, 0, 2], rotate: [0, 45, 0], scale: [1, 1, 1] }),
    ],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          { ...emptyCurve('wagon/translate.x'), keys: [newKey(0, 0), newKey(60, 6)] },
          { ...emptyCurve('gate/translate.y'), keys: [newKey(10, 0), newKey(50, 0)] },
        ],
      },
    ],
    interlocks: [
      {
        id: 'i',
        clip: 'main',
        channel: 'gate/translate.y',
        frame: 10,
        after: { kind: 'key', channel: 'wagon/translate.x', frame: 0 },
        gap: 0,
        exact: false,
        muted: false,
      },
    ],
  };
}

function measured(project: Project) {
  const program = compile(project);
  if (!program.ok) throw new Error('it does not compile');
  return new PairClearance(project, project.interlocks[0]!, () => null).measure(program.value);
}

describe('the clearance of what an interlock ties', () => {
  it('is looked for from what is waited for to the end of the leg that waits', () => {
    const project = works();
    const frames = passingFrames(project, project.interlocks[0]!);
    expect([frames[0], frames.at(-1), frames.length]).toEqual([0, 50, 51]);
  });

  it('is the distance of the faces that pass: 1.5 m less half the diagonal of the turned gate', () => {
    const clearance = measured(works())!;
    expect(clearance.distance).toBeCloseTo(1.5 - 0.2 * Math.SQRT2, 6);
    expect(clearance.frame).toBeGreaterThan(20);
  });

  it('counts a size that is not 1, and is nothing where they touch', () => {
    const project = works();
    const wide = {
      ...project,
      parts: [
        { ...project.parts[0]!, rest: { ...project.parts[0]!.rest, scale: [1, 1, 2] as const } },
        project.parts[1]!,
      ],
    };
    expect(measured(wide)!.distance).toBeCloseTo(1 - 0.2 * Math.SQRT2, 6);
    const touching = {
      ...project,
      parts: [
        { ...project.parts[0]!, rest: { ...project.parts[0]!.rest, scale: [1, 1, 4] as const } },
        project.parts[1]!,
      ],
    };
    expect(measured(touching)!.distance).toBe(0);
  });

  it('is not there where one rides on the other', () => {
    const project = works();
    const riding = { ...project, parts: [project.parts[0]!, { ...project.parts[1]!, parent: 'wagon' }] };
    expect(measured(riding)).toBeNull();
  });
});

describe('a clearance that is measured when it is asked for', () => {
  it('is known until the project is another, and of its interlocks only', () => {
    const { studio, registry, injector, usable } = commandFakes(works(), [InterlockCommands]);
    const clearances = injector.get(MeasuredClearances);
    const lock = studio.project()!.interlocks[0]!;
    expect(usable('interlock.measure')).toBe(false);
    expect(clearances.of(lock)).toBeNull();
    studio.pick({ keys: [{ channel: lock.channel, frame: lock.frame }] });
    registry.run('interlock.measure');
    expect(clearances.of(lock)!.distance).toBeCloseTo(1.5 - 0.2 * Math.SQRT2, 6);
    expect(clearances.pairOf({ ...lock })).toBeNull();
    studio.edit('Rename', (project) => ({ ...project, name: 'Other works' }));
    expect(clearances.of(lock)).toBeNull();
  });
});
