import fc from 'fast-check';
import { replacedAt, type Curve, type Driver, type Part, type Placement, type Project } from '../project';
import { line, partOfRig } from '../../testing/rigged';
import { programOf, testProject } from '../../testing/project';
import { compile, type Program } from './index';

const FLAPS = 10;

const PLACEMENT: Placement = {
  id: 'placed',
  clip: 'second',
  start: 5,
  from: 0,
  to: 50,
  speed: 1.5,
  repeats: 2,
  repeat: 'loop',
  mode: 'add',
  weight: 0.5,
  fadeIn: 3,
  fadeOut: 0,
  after: 'hold',
  time: null,
  partMap: {},
  muted: false,
};

/**
 * A rig with two clips, a constraint and drivers of which an edit changes one thing: two on one channel, one that reads itself later,
 * as many formulas of one shape as are computed together, and with `ring` a muted one that would run in a ring with another.
 */
function rig(ring: boolean): Project {
  const expression = (id: string, target: string, x: string, more: object = {}) => ({
    id,
    target,
    kind: 'expression',
    inputs: { x },
    expression: 'x * 10',
    ...more,
  });
  const project = testProject(
    {
      parts: [
        partOfRig('cart', {
          custom: [
            { name: 'way', value: 1 },
            ...Array.from({ length: FLAPS }, (_, i) => ({ name: `flap${i}`, value: i })),
          ],
        }),
        partOfRig('arm', { parent: 'cart', rest: { translate: [1, 0, 0] } }),
        partOfRig('skip', { rest: { translate: [3, 2, 0] } }),
      ],
      drivers: [
        expression('d', 'arm/rotate.z', 'cart/translate.x'),
        expression('more', 'arm/rotate.z', 'skip/translate.y', { combine: 'add', muted: true }),
        ...(ring ? [expression('to', 'skip/scale.x', 'skip/scale.y', { muted: true })] : []),
        expression('fro', 'skip/scale.y', 'skip/scale.x'),
        {
          id: 'late',
          target: 'skip/translate.z',
          kind: 'echo',
          input: 'skip/translate.y',
          delay: 3,
          muted: true,
        },
        ...Array.from({ length: FLAPS }, (_, i) =>
          expression(`flap${i}`, `cart/custom.flap${i}`, 'cart/translate.x', {
            expression: `x * ${i + 3} + sin(frame)`,
            muted: i % 4 === 3,
          }),
        ),
      ],
      constraints: [{ id: 'c', kind: 'aim', part: 'arm', target: 'skip', weight: 0.5 }],
    },
    [line('cart/translate.x', [0, 0], [50, 5]), line('skip/translate.y', [0, 2], [100, 0])],
  );
  const [main] = project.clips;
  const second = {
    ...main!,
    id: 'second',
    curves: main!.curves.map((curve) => ({ ...curve, muted: false })),
  };
  return { ...project, clips: [main!, second] };
}

type Edit = (project: Project, at: number) => Project;
const withCurves = (project: Project, change: (curves: readonly Curve[]) => readonly Curve[]): Project => ({
  ...project,
  clips: project.clips.map((clip) =>
    clip.id === project.activeClip ? { ...clip, curves: change(clip.curves) } : clip,
  ),
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
  'drivers muted': (project) => ({
    ...project,
    drivers: project.drivers.map((driver) =>
      driver.id === 'to' || driver.id === 'fro' ? driver : { ...driver, muted: !driver.muted },
    ),
  }),
  'driver muted': (project, at) => withDriver(project, at, (driver) => ({ ...driver, muted: !driver.muted })),
  'ring turned round': (project) => ({
    ...project,
    drivers: project.drivers.map((driver) =>
      driver.id === 'to' || driver.id === 'fro' ? { ...driver, muted: !driver.muted } : driver,
    ),
  }),
  'ring taken out': (project) => ({ ...project, drivers: project.drivers.filter(({ id }) => id !== 'to') }),
  'driver changed': (project, at) =>
    withDriver(project, at, (driver) =>
      driver.kind === 'expression'
        ? { ...driver, expression: driver.expression.replace(/\d+/, `${at}`) }
        : driver,
    ),
  'formula of another shape': (project, at) =>
    withDriver(project, at, (driver) =>
      driver.kind === 'expression' ? { ...driver, expression: `x - ${at}` } : driver,
    ),
  'clip switched': (project) => ({
    ...project,
    activeClip: project.activeClip === 'second' ? 'main' : 'second',
  }),
  'rate changed': (project, at) => ({ ...project, rate: { frames: 20 + (at % 3), per: 1 } }),
  'clips laid out': (project) => ({
    ...project,
    arrangement: project.arrangement.length > 0 ? [] : [PLACEMENT],
  }),
  'constraint changed': (project, at) => ({
    ...project,
    constraints: project.constraints.map((each) => ({ ...each, weight: at / 20 }) as typeof each),
  }),
};

/** Changes one driver; the pair that would run in a ring stays as it is. */
function withDriver(project: Project, at: number, change: (driver: Driver) => Driver): Project {
  const place = at % project.drivers.length;
  const driver = project.drivers[place]!;
  if (driver.id === 'to' || driver.id === 'fro') return project;
  return { ...project, drivers: replacedAt(project.drivers, place, change(driver)) };
}

/** All numbers of a frame, by a run and asked one by one, with rates and what is driven. */
function everything(program: Program, frame: number): unknown[] {
  const out = program.createOutput();
  program.run(frame, out);
  const slots = Array.from(out.channels.keys());
  return [
    ...out.channels,
    ...out.world.flatMap((matrix) => [...matrix]),
    ...slots.map((slot) => program.channelValue(slot, frame)),
    ...slots.flatMap((slot) => program.channelRates(slot, frame)),
    ...slots.map((slot) => program.isDriven(slot)),
    ...program.moving,
  ];
}

describe('a muted driver', () => {
  it('is as if it were not there: nothing is driven by it, and it does not come first in any order', () => {
    const expression = (id: string, target: string, muted: boolean) => ({
      id,
      target,
      kind: 'expression',
      inputs: {},
      expression: '7',
      muted,
    });
    const drivers = [
      expression('a', 'skip/scale.x', true),
      expression('b', 'arm/rotate.z', false),
      expression('c', 'skip/scale.x', false),
      expression('d', 'cart/scale.y', true),
    ];
    const parts = ['cart', 'arm', 'skip'].map((id) => partOfRig(id));
    const program = programOf(testProject({ parts, drivers }, []));
    expect(program.moving).toEqual(['arm/rotate.z', 'skip/scale.x']);
    expect(program.isDriven(program.structure.slots.get('cart/scale.y')!)).toBe(false);
  });
});

describe('compiling what came out of an edit', () => {
  it('gives the very numbers of compiling it anew, whatever was edited before, undone or done again', () => {
    const step = fc.tuple(fc.constantFrom(...Object.keys(EDITS), 'undo'), fc.nat(19));
    fc.assert(
      fc.property(
        fc.boolean(),
        fc.array(step, { minLength: 1, maxLength: 14 }),
        fc.double({ min: -5, max: 110, noNaN: true }),
        (ring, steps, frame) => {
          const history = [rig(ring)];
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
      { numRuns: 200 },
    );
  });
});

it('parts that ride on each other in a ring are told by the first of them', () => {
  const project = testProject({
    parts: [
      { id: 'crate', name: 'Crate', kind: 'group' },
      { id: 'a', name: 'A', kind: 'group' },
    ],
  });
  const ring = {
    ...project,
    parts: project.parts.map((part) => ({ ...part, parent: part.id === 'a' ? 'a' : null })),
  };
  const compiled = compile(ring);
  expect(compiled.ok ? [] : compiled.problems).toEqual([
    {
      pointer: '/parts/1/parent',
      message: 'parts and channels run in a ring: a → a; none may depend on itself',
    },
  ]);
});
