import { computed, Injector, signal, ɵINJECTOR_SCOPE, type Provider } from '@angular/core';
import { asEdited, compile, holdInterlocks, type Edit, type Project } from '@kaizen/core';
import { Proposals } from '../bench/stage/proposals';
import { Stage } from '../bench/stage/stage';
import { initialBench, type BenchState, type Picked } from '../state/bench';
import type { LooseEdit } from '../state/document';
import { followLoose, followPointers, pointersOf } from '../state/pointers';
import { Studio } from '../state/studio';
import { Notices } from '../ui/notices';

/** The studio's state without a store: edits apply at once, their labels are remembered. */
export class FakeStudio {
  readonly project = signal<Project | null>(null);
  readonly loose = signal<readonly LooseEdit[]>([]);
  readonly readOnly = signal(false);
  readonly bench = signal<BenchState>(initialBench);
  readonly labels: string[] = [];
  /** Edits asked for although the project is only followed. */
  readonly refused: string[] = [];

  edit(
    label: string,
    change: Edit,
    loose: (loose: readonly LooseEdit[]) => readonly LooseEdit[] = (same) => same,
  ): void {
    const project = this.project();
    if (this.readOnly()) this.refused.push(label);
    if (!project || this.readOnly()) return;
    const edited = holdInterlocks(project, asEdited(change(project)));
    if (edited.project !== project) this.labels.push(label);
    this.bench.update((bench) => ({ ...bench, ...followPointers(pointersOf(bench), project, edited) }));
    this.project.set(edited.project);
    this.loose.update((edits) => loose(followLoose(edits, project, edited)));
  }
  pick(picked: Picked): void {
    this.bench.update((bench) => ({ ...bench, ...picked }));
  }
  set(change: Partial<BenchState>): void {
    this.bench.update((bench) => ({ ...bench, ...change }));
  }
}

/** What is on show, evaluated anew for every project; the playhead is where a test puts it. */
export class FakeStage {
  readonly frame = signal(0);
  readonly posing = signal<readonly LooseEdit[]>([]);
  readonly playing = signal(false);
  proposals: Proposals | null = null;
  readonly proposed = computed(() => this.proposals?.result()?.project ?? null);
  readonly shown = computed(() => this.proposed() ?? this.studio.project());
  readonly program = computed(() => {
    const project = this.shown();
    const compiled = project ? compile(project) : null;
    return compiled?.ok ? compiled.value : null;
  });

  constructor(private readonly studio: FakeStudio) {}

  readonly now = computed(() => {
    const program = this.program();
    if (!program) return null;
    const out = program.createOutput();
    program.run(this.frame(), out);
    return { program, out, frame: this.frame() };
  });

  valueOf(channel: string): number | null {
    const now = this.now();
    const slot = now?.program.structure.slots.get(channel);
    return now && slot !== undefined ? now.out.channels[slot]! : null;
  }

  goTo(frame: number): void {
    this.frame.set(frame);
  }
  scrub(frame: number): void {
    this.frame.set(frame);
  }
  stop(): void {
    this.playing.set(false);
  }
  toggle(): void {
    this.playing.update((playing) => !playing);
  }
}

/** The last thing told, and its press. */
export class FakeNotices {
  said = '';
  action: (() => void) | undefined;
  tell(text: string, action?: { readonly run: () => void }): void {
    this.said = text;
    this.action = action?.run;
  }
  warn(text: string): void {
    this.said = text;
  }
  clear(): void {
    this.said = '';
  }
}

/** The fakes in an injector that makes everything else itself; `providers` take the place of what would need a browser. */
export function fakes(project: Project, providers: readonly Provider[] = []) {
  const studio = new FakeStudio();
  studio.project.set(project);
  const stage = new FakeStage(studio);
  const notices = new FakeNotices();
  const injector = Injector.create({
    providers: [
      { provide: ɵINJECTOR_SCOPE, useValue: 'root' },
      { provide: Studio, useValue: studio },
      { provide: Stage, useValue: stage },
      { provide: Notices, useValue: notices },
      ...(providers as []),
    ],
  });
  const proposals = injector.get(Proposals);
  stage.proposals = proposals;
  return { studio, stage, notices, injector, proposals };
}
