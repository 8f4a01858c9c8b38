import fc from 'fast-check';
import type { Curve, Driver, Part, Project } from '../project';
import { line, partOfRig } from '../../testing/rigged';
import { testProject } from '../../testing/project';
import { compile, type Program } from './index';

/** A rig with curves, a driver and a constraint, of which an edit changes one thing. */
function rig(): Project {
  return testProject(
    {
      parts: [
        partOfRig('cart', { custom: [{ name: 'way', value: 1 }] }),
        partOfRig('arm', { parent: 'cart', rest: { translate: [1, 0, 0] } }),
        partOfRig('skip', { rest: { translate: [3, 2, 0] } }),
      ],
      drivers: [
        {
          id: 'd',
          target: 'arm/rotate.z',
          kind: 'expression',
          inputs: { x: 'cart/translate.x' },
          expression: 'x * 10',
        },
      ],
      constraints: [{ id: 'c', kind: 'aim', part: 'arm', target: 'skip', weight: 0.5 }],
    },
    [line('cart/translate.x', [0, 0], [50, 5]), line('skip/translate.y', [0, 2], [100, 0])],
  );
}

type Edit = (project: Project, at: number) => Project;
const withCurves = (project: Project, change: (curves: readonly Curve[]) => readonly Curve[]): Project => ({
  ...project,
  clips: project.clips.map((clip) => ({ ...clip, curves: change(clip.curves) })),
});
const withPart = (project: Project, i: number, change: Partial<Part>): Project => ({
  ...project,
  parts: project.parts.map((part, n) => (n === i ? ({ ...part, ...change } as Part) : part)),
});

const EDITS: Readonly<Record<string, Edit>> = {
  'key moved': (project, at) =>
    withCurves(project, ([first, ...rest]) => [
      { ...first!, keys: first!.keys.map((key, i) => (i === 1 ? { ...key, value: at } : key)) },
      ...rest,
    ]),
  'first key': (project) =>
    withCurves(project, (curves) => {
      const channel = 'arm/scale.x';
      return curves.some((curve) => curve.channel === channel)
        ? curves
        : [...curves, { ...curves[0]!, channel }];
    }),
  'curve gone': (project) => withCurves(project, (curves) => curves.slice(0, Math.max(1, curves.length - 1))),
  rename: (project, at) => withPart(project, at % 3, { name: `part ${at}` }),
  'rest changed': (project, at) =>
    withPart(project, at % 3, { rest: { translate: [at, 0, 0], rotate: [0, 0, 0], scale: [1, 1, 1] } }),
  pivot: (project, at) => withPart(project, at % 3, { pivot: [at / 10, 0, 0] }),
  limit: (project, at) => withPart(project, at % 3, { limits: { 'translate.x': { max: at } } }),
  'part added': (project, at) => {
    const id = `new-${at}`;
    if (project.parts.some((part) => part.id === id)) return project;
    return { ...project, parts: [...project.parts, { ...project.parts[1]!, id, parent: 'skip' }] };
  },
  'part gone': (project) =>
    project.parts.length > 3 ? { ...project, parts: project.parts.slice(0, -1) } : project,
  'driver muted': (project) => ({
    ...project,
    drivers: project.drivers.map((driver) => ({ ...driver, muted: !driver.muted })),
  }),
  'driver changed': (project, at) => ({
    ...project,
    drivers: project.drivers.map((driver) => ({ ...driver, expression: `x * ${at}` }) as Driver),
  }),
  'constraint changed': (project, at) => ({
    ...project,
    constraints: project.constraints.map((each) => ({ ...each, weight: at / 20 }) as typeof each),
  }),
};

function everything(program: Program, frame: number): number[] {
  const out = program.createOutput();
  program.run(frame, out);
  return [...out.channels, ...out.world.flatMap((matrix) => [...matrix])];
}

describe('compiling what came out of an edit', () => {
  it('gives the very numbers of compiling it anew, whatever was edited before, undone or done again', () => {
    const step = fc.tuple(fc.constantFrom(...Object.keys(EDITS), 'undo'), fc.nat(19));
    fc.assert(
      fc.property(
        fc.array(step, { minLength: 1, maxLength: 14 }),
        fc.double({ min: -5, max: 110, noNaN: true }),
        (steps, frame) => {
          const history = [rig()];
          let program: Program | undefined;
          for (const [name, at] of steps) {
            const project = history.at(-1)!;
            if (name !== 'undo') history.push(EDITS[name]!(project, at));
            else if (history.length > 1) history.pop();
            const now = history.at(-1)!;
            const next = compile(now, program ? { previous: program } : {});
            const anew = compile({ ...now, parts: [...now.parts], drivers: [...now.drivers] });
            if (!next.ok || !anew.ok) throw new Error('refused');
            program = next.value;
            expect(everything(program, frame)).toEqual(everything(anew.value, frame));
          }
        },
      ),
      { numRuns: 150 },
    );
  });
});
