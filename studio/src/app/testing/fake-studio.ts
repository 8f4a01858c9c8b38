import { computed, Injector, signal, type Provider } from '@angular/core';
import { compile, type Project } from '@kaizen/core';
import { Stage, type Offer } from '../bench/stage';
import { initialBench, type BenchState, type Picked } from '../state/bench';
import type { LooseEdit } from '../state/document';
import { Studio } from '../state/studio';
import { Notices } from '../ui/notices';

/** The studio's state without a store: edits apply at once, their labels are remembered. */
export class FakeStudio {
  readonly project = signal<Project | null>(null);
  readonly loose = signal<readonly LooseEdit[]>([]);
  readonly readOnly = signal(false);
  readonly bench = signal<BenchState>(initialBench);
  readonly labels: string[] = [];

  edit(
    label: string,
    change: (project: Project) => Project,
    loose?: (loose: readonly LooseEdit[]) => readonly LooseEdit[],
  ): void {
    const project = this.project();
    if (!project) return;
    this.labels.push(label);
    this.project.set(change(project));
    if (loose) this.loose.update(loose);
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
  readonly preview = signal<Project | null>(null);
  readonly proposed = signal<Project | null>(null);
  readonly offer = signal<Offer | null>(null);
  readonly offered = computed((): Project | null => {
    const project = this.studio.project();
    return project && (this.offer()?.change(project) ?? null);
  });
  readonly playing = signal(false);
  readonly shown = computed(
    () => this.preview() ?? this.offered() ?? this.proposed() ?? this.studio.project(),
  );
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

export function fakes(project: Project, providers: readonly Provider[]) {
  const studio = new FakeStudio();
  studio.project.set(project);
  const stage = new FakeStage(studio);
  const notices = new FakeNotices();
  const injector = Injector.create({
    providers: [
      { provide: Studio, useValue: studio },
      { provide: Stage, useValue: stage },
      { provide: Notices, useValue: notices },
      ...(providers as []),
    ],
  });
  return { studio, stage, notices, injector };
}
