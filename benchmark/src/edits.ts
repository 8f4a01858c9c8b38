import {
  addTreatment,
  changeConstraint,
  changeDriver,
  changePart,
  compile,
  keyValues,
  moveKeys,
  newPart,
  withMore,
  type Constraint,
  type Driver,
  type Part,
  type Program,
  type Project,
  type Result as ResultOf,
  type Treatment,
} from '@kaizen/core';
import { keyedProject } from './keyed-project';
import { median, type Result } from './measure';

const LAST = 1000;
const PROPERTIES = ['translate.x', 'translate.y', 'translate.z', 'scale.x', 'scale.y', 'scale.z'];
const ROUNDS = 120;
const WARM_UP = 400;

/** A project of some parts with six curves each, a driver for every other part, a constraint for every tenth, and two clips. */
function bench(count: number): Project {
  const keyed = keyedProject(count, PROPERTIES, LAST, (random) =>
    Array.from({ length: 40 }, (_, i) => (i + 0.1 + 0.8 * random()) * (LAST / 40)),
  );
  const drivers = Array.from({ length: count / 2 }, (_, i): Driver => ({
    id: `d${i}`,
    target: `part-${i * 2}/rotate.y`,
    combine: 'replace',
    muted: false,
    kind: 'expression',
    inputs: { x: `part-${i * 2 + 1}/translate.x` },
    expression: 'x * 30 + 5',
  }));
  const constraints = Array.from({ length: Math.ceil(count / 10) }, (_, i): Constraint => ({
    id: `c${i}`,
    kind: 'aim',
    part: `part-${i * 10}`,
    target: `part-${i * 10 + 1}`,
    axis: '-z',
    up: 'y',
    weight: 1,
    lag: null,
    muted: false,
  }));
  const [main] = keyed.clips;
  const second = {
    ...main!,
    id: 'second',
    name: 'Second',
    curves: main!.curves.map((curve) => ({ ...curve })),
  };
  return { ...keyed, drivers, constraints, clips: [main!, second] };
}

interface State {
  readonly project: Project;
  readonly program: Program;
}

function compiled(project: Project, previous?: Program): State {
  const result = compile(project, previous ? { previous } : {});
  if (!result.ok) throw new Error(JSON.stringify(result.problems[0]));
  return { project, program: result.value };
}

function done(result: ResultOf<Project>): Project {
  if (!result.ok) throw new Error(JSON.stringify(result.problems[0]));
  return result.value;
}

const NOISE: Treatment = { kind: 'noise', amplitude: 0.1, period: 7, seed: 3, weight: 1, muted: false };

/** Twelve kinds of edit; `round` makes each time another one. */
const EDITS: Readonly<Record<string, (project: Project, round: number) => Project>> = {
  'key moved': (project) => {
    const { channel, keys } = project.clips[0]!.curves[7]!;
    return moveKeys(project, [{ channel, frame: keys[20]!.frame }], { frames: 0, value: 0.001 }).project;
  },
  'first key': (project, round) =>
    keyValues(project, [{ channel: `part-3/rotate.${'xyz'.charAt(round % 3)}`, frame: 10, value: round }]),
  rename: (project, round) => changePart(project, 'part-4', (part) => ({ ...part, name: `Part ${round}` })),
  'part added': (project, round): Project => {
    const part: Part = { ...newPart('group', `n${round}`), id: `n${round}` };
    return { ...project, parts: withMore(project.parts, part) };
  },
  limit: (project, round) =>
    changePart(project, 'part-5', (part) => ({ ...part, limits: { 'translate.x': { max: round } } })),
  'driver muted': (project) => done(changeDriver(project, 'd2', { muted: !project.drivers[2]!.muted })),
  'driver changed': (project, round) => done(changeDriver(project, 'd2', { expression: `x * ${round} + 5` })),
  'constraint changed': (project, round) =>
    done(changeConstraint(project, 'c0', { weight: 1 / (round + 1) })),
  treatment: (project, round) => addTreatment(project, 'part-1/scale.x', { ...NOISE, seed: round }),
  'clip switched': (project) => ({
    ...project,
    activeClip: project.activeClip === 'second' ? 'main' : 'second',
  }),
};

/** Milliseconds of an edit with what it compiles, from one state; the state is gone back to, which is an undo. */
function timed(state: State, edit: (project: Project, round: number) => Project): readonly [number, number] {
  const there: number[] = [];
  const back: number[] = [];
  let now = state;
  for (let round = 0; round < WARM_UP + ROUNDS; round++) {
    const began = performance.now();
    const project = edit(now.project, round);
    const next = compiled(project, now.program);
    const middle = performance.now();
    const undone = compiled(state.project, next.program);
    const ended = performance.now();
    if (round >= WARM_UP) {
      there.push(middle - began);
      back.push(ended - middle);
    }
    now = undone;
  }
  return [median(there), median(back)];
}

/** A value held at the playhead in place of a curve's: what a loose edit is to the engine. */
function looseEdit(state: State): number {
  const out = state.program.createOutput();
  state.program.run(10, out);
  const times: number[] = [];
  for (let round = 0; round < WARM_UP + ROUNDS; round++) {
    const began = performance.now();
    const slots = new Map([[state.program.structure.slots.get('part-3/translate.x')!, round]]);
    if (slots.size !== 1) throw new Error('no slot');
    if (round >= WARM_UP) times.push(performance.now() - began);
  }
  return median(times);
}

export function edits(): Result[] {
  const [small, large] = [compiled(bench(10)), compiled(bench(1000))];
  const undos: [number[], number[]] = [[], []];
  const rows = Object.entries(EDITS).map(([name, edit]): Result => {
    const [few, undoFew] = timed(small, edit);
    const [many, undoMany] = timed(large, edit);
    undos[0].push(undoFew);
    undos[1].push(undoMany);
    return row(name, few, many);
  });
  const undo = row('undo', median(undos[0]), median(undos[1]));
  return [...rows, row('loose edit', looseEdit(small), looseEdit(large)), undo];
}

function row(name: string, few: number, many: number): Result {
  const times = many / few;
  return {
    what: `${name}, the edit and what it compiles, in 1,000 parts with 6,000 curves, 500 drivers, 100 constraints (${(many * 1000).toFixed(0)} µs), against a hundredth of that (${(few * 1000).toFixed(0)} µs)`,
    measured: `${times.toFixed(2)} times as slow`,
    wanted: 'at most 1.5',
    good: times <= 1.5,
  };
}
