import { provideZonelessChangeDetection } from '@angular/core';
import { createApplication } from '@angular/platform-browser';
import {
  addTreatment,
  changeConstraint,
  changeDriver,
  changePart,
  keyValues,
  moveKeys,
  newPart,
  withMore,
  type Constraint,
  type Driver,
  type Edit,
  type Part,
  type Project,
  type Result as ResultOf,
  type Treatment,
} from '@kaizen/core';
import { Stage } from '../../studio/src/app/bench/stage/stage';
import type { LooseEdit } from '../../studio/src/app/state/document';
import { provideStudioStore } from '../../studio/src/app/state/store';
import { Studio } from '../../studio/src/app/state/studio';
import { keyedProject } from './keyed-project';
import { median, type Result } from './measure';

const LAST = 1000;
const PROPERTIES = ['translate.x', 'translate.y', 'translate.z', 'scale.x', 'scale.y', 'scale.z'];
const ROUNDS = 61;
const WARM_UP = 20;
/** So many edits, each undone again, are timed together: the clock of a page has coarse steps. */
const BATCH = 60;

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

function done(result: ResultOf<Project>): Project {
  if (!result.ok) throw new Error(JSON.stringify(result.problems[0]));
  return result.value;
}

const NOISE: Treatment = { kind: 'noise', amplitude: 0.1, period: 7, seed: 3, weight: 1, muted: false };

/** Kinds of edit, in the middle of the lists; `round` makes each time another one. */
const EDITS: Readonly<Record<string, (project: Project, round: number) => ReturnType<Edit>>> = {
  'key moved': (project) => {
    const { channel, keys } = middleOf(project.clips[0]!.curves);
    return moveKeys(project, [{ channel, frame: keys[20]!.frame }], { frames: 0, value: 0.001 });
  },
  'first key': (project, round) => {
    const channel = `${middleOf(project.parts).id}/rotate.${'xyz'.charAt(round % 3)}`;
    return keyValues(project, [{ channel, frame: 10, value: round }]);
  },
  rename: (project, round) =>
    changePart(project, middleOf(project.parts).id, (part) => ({ ...part, name: `Part ${round}` })),
  'part added': (project, round) => {
    const part: Part = { ...newPart('group', `n${round}`), id: `n${round}` };
    return { ...project, parts: withMore(project.parts, part) };
  },
  limit: (project, round) =>
    changePart(project, middleOf(project.parts).id, (part) => ({
      ...part,
      limits: { 'translate.x': { max: round } },
    })),
  'driver muted': (project) => {
    const { id, muted } = middleOf(project.drivers);
    return done(changeDriver(project, id, { muted: !muted }));
  },
  'driver changed': (project, round) =>
    done(changeDriver(project, middleOf(project.drivers).id, { expression: `x * ${round} + 5` })),
  'constraint changed': (project, round) =>
    done(changeConstraint(project, middleOf(project.constraints).id, { weight: 1 / (round + 1) })),
  treatment: (project, round) =>
    addTreatment(project, middleOf(project.clips[0]!.curves).channel, { ...NOISE, seed: round }),
  'clip switched': (project) => ({
    ...project,
    activeClip: project.activeClip === 'second' ? 'main' : 'second',
  }),
};

function middleOf<T>(list: readonly T[]): T {
  return list[list.length >> 1]!;
}

/** The state of a Bench with a project on it, as the application has it. */
class Bench {
  private constructor(
    private readonly studio: Studio,
    private readonly stage: Stage,
  ) {}

  static async with(project: Project): Promise<Bench> {
    const { injector } = await createApplication({
      providers: [provideZonelessChangeDetection(), provideStudioStore()],
    });
    const studio = injector.get(Studio);
    studio.open({ project, loose: [] }, false);
    studio.pick({ ...studio.bench(), parts: ['part-3'], channels: ['part-3/translate.x'] });
    return new Bench(studio, injector.get(Stage));
  }

  /** Edits it, and has what is shown made anew. */
  edit(label: string, edit: Edit, loose?: (loose: readonly LooseEdit[]) => readonly LooseEdit[]): void {
    const before = this.studio.current();
    this.studio.edit(label, edit, loose);
    if (this.studio.current() === before) throw new Error(`${label} changed nothing`);
    this.show();
  }

  undo(): void {
    this.studio.undo();
    this.show();
  }

  redo(): void {
    this.studio.redo();
    this.show();
  }

  private show(): void {
    if (!this.stage.program()) throw new Error(JSON.stringify(this.stage.problems()[0]));
  }
}

const LOOSE: LooseEdit = { channel: 'part-3/translate.x', frame: 10, value: 0, was: 0 };

/** What is timed, by its name; `round` counts how often it was done. */
const TIMED: Readonly<Record<string, (bench: Bench, round: number) => void>> = {
  ...Object.fromEntries(
    Object.entries(EDITS).map(([name, edit]) => [
      name,
      (on: Bench, round: number) => {
        on.edit(name, (project) => edit(project, round));
        on.undo();
      },
    ]),
  ),
  'loose edit': (on, round) => {
    on.edit(
      'loose edit',
      (project) => project,
      () => [{ ...LOOSE, value: round }],
    );
    on.undo();
  },
  undo: (on) => {
    on.undo();
    on.redo();
  },
};

/** What edits cost on the Bench of a big project and of a hundredth of it, by turns. Runs in a page. */
export async function edits(): Promise<Result[]> {
  const benches = [await Bench.with(bench(10)), await Bench.with(bench(1000))];
  return Object.entries(TIMED).map(([name, run]): Result => {
    if (name === 'undo') for (const on of benches) on.edit(name, (project) => EDITS['rename']!(project, 0));
    const times: [number[], number[]] = [[], []];
    for (let round = 0; round < WARM_UP + ROUNDS; round++)
      benches.forEach((on, which) => {
        const began = performance.now();
        for (let i = 0; i < BATCH; i++) run(on, round * BATCH + i);
        if (round >= WARM_UP) times[which]!.push((performance.now() - began) / BATCH);
      });
    return row(name, median(times[0]), median(times[1]));
  });
}

function row(name: string, few: number, many: number): Result {
  const times = many / few;
  return {
    what: `${name === 'undo' ? 'undo and redo' : `${name} and its undo`} on the Bench: the edit, what points into the project, what it compiles; in 1,000 parts with 6,000 curves, 500 drivers, 100 constraints (${(many * 1000).toFixed(0)} µs), against a hundredth of that (${(few * 1000).toFixed(0)} µs)`,
    measured: `${times.toFixed(2)} times as slow`,
    wanted: 'at most 1.5',
    good: times <= 1.5,
  };
}
