import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  signal,
  type WritableSignal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { compile, FORMATS, type Format } from '@kaizen/core';
import { onItem, switching, type Command } from '../commands/command';
import { offerCommands } from '../commands/offer-commands';
import { RunDirective } from '../commands/run.directive';
import { ProjectFile } from '../open/project-file';
import { download, fileName, type ProjectFileKind } from '../ui/download';
import { Assets } from '../state/assets';
import { Studio } from '../state/studio';
import { NumberFieldComponent } from '../ui/number-field.component';
import type { Option } from '../ui/option';
import { SegmentsComponent } from '../ui/segments.component';
import { runWrite, type ExportRun } from '../workers/export.client';
import type { FileWritten, WriteChoice } from '../workers/export-api';
import { FormatCardComponent, type CardState } from './format-card.component';

/** Formats that have a card of their own; the whole project has one for all of its files. */
const HANDED_OVER = FORMATS.filter(({ write, isWhole }) => write && !isWhole);
const PROJECT = 'project';
const PROJECT_KINDS: readonly Option<ProjectFileKind>[] = [
  { value: 'json', label: 'one file', tip: 'A .kaizen.json with everything inside' },
  { value: 'zip', label: 'with its assets', tip: 'A .kaizen.zip with the models beside the project' },
];
const IDLE: CardState = { kind: 'idle' };

/** Hand over: the files that the next program reads, and what each can carry. */
@Component({
  selector: 'kz-hand-over',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormatCardComponent, NumberFieldComponent, RouterLink, RunDirective, SegmentsComponent],
  templateUrl: './hand-over.component.html',
  styleUrl: './hand-over.component.scss',
})
export class HandOverComponent {
  readonly studio = inject(Studio);
  private readonly beside = inject(Assets);
  private readonly file = inject(ProjectFile);
  /** How it stands with each card, by its format; a card that was not pressed yet is idle. */
  private readonly states = signal<Readonly<Record<string, CardState>>>({});
  readonly bake = signal(false);
  /** Share of a curve's range, in per cent. */
  readonly tolerancePercent = signal(0.01);
  readonly rates = signal(false);
  readonly projectKind = signal<ProjectFileKind>('json');
  readonly projectKinds = PROJECT_KINDS;
  private readonly runs = new Map<string, ExportRun>();

  constructor() {
    inject(DestroyRef).onDestroy(() => this.runs.forEach((run) => run.cancel()));
    const isWriting = (card: string) => this.state(card).kind === 'writing';
    const choice = (id: string, label: string, of: WritableSignal<boolean>) =>
      switching({ id: `hand-over.${id}`, label, group: 'Project' }, of, (on) => of.set(on));
    offerCommands([
      ...HANDED_OVER.map((format): Command => ({
        id: `hand-over.${format.id}`,
        label: `Hand over: write ${format.extensions[0]}`,
        group: 'Project',
        when: () => this.studio.project() !== null && !isWriting(format.id),
        run: () => this.write(format),
      })),
      {
        id: `hand-over.${PROJECT}`,
        label: 'Hand over: write the whole Kaizen project',
        group: 'Project',
        when: () => this.studio.project() !== null,
        run: () => this.writeProject(),
      },
      onItem<string>({
        id: 'hand-over.stop',
        label: 'Hand over: stop writing',
        group: 'Project',
        meant: () => HANDED_OVER.map(({ id }) => id).find(isWriting) ?? null,
        run: (card) => this.runs.get(card)?.cancel(),
      }),
      choice('bake', 'Hand over: bake all, so that every reader shows it alike', this.bake),
      choice('rates', 'Hand over: speed, acceleration, jerk in the table', this.rates),
    ]);
  }

  readonly stem = computed(() => fileName(this.studio.project()?.name ?? ''));
  readonly compiled = computed(() => {
    const project = this.studio.project();
    return project ? compile(project) : null;
  });
  readonly problem = computed(() => {
    const compiled = this.compiled();
    const problem = compiled && !compiled.ok ? compiled.problems[0] : null;
    return problem
      ? `At ${problem.pointer}, ${problem.message}. The project itself can still be written.`
      : null;
  });
  readonly cards = computed(() => {
    const project = this.studio.project();
    const good = this.compiled()?.ok === true;
    return HANDED_OVER.map((format) => ({
      format,
      file: this.nameOf(format),
      verb: `Write ${format.extensions[0]}`,
      carried: project && good ? format.carries(project) : null,
    }));
  });
  readonly assets = computed(() => this.studio.project()?.assets.length ?? 0);

  state(card: string): CardState {
    return this.states()[card] ?? IDLE;
  }

  private set(card: string, state: CardState): void {
    this.states.update((states) => ({ ...states, [card]: state }));
  }

  private nameOf({ extensions }: Format): string {
    return `${this.stem()}${extensions[0]}`;
  }

  private write(format: Format): void {
    const { id, settings, mediaType } = format;
    const project = this.studio.project();
    if (!project) return;
    const choice: WriteChoice = {
      ...(settings.includes('bake') ? { bake: this.bake() } : {}),
      ...(settings.includes('tolerance') ? { tolerance: this.tolerancePercent() / 100 } : {}),
      ...(settings.includes('rates') ? { rates: this.rates() } : {}),
    };
    this.set(id, { kind: 'writing', share: null });
    const progress = (share: number) => this.set(id, { kind: 'writing', share });
    const opened = { project, bytes: this.beside.beside };
    this.follow(id, runWrite(id, opened, choice, progress), this.nameOf(format), mediaType);
  }

  private follow(card: string, run: ExportRun, name: string, type: string): void {
    this.runs.set(card, run);
    void run.result.then((written) => this.finish(card, written, name, type));
  }

  private finish(card: string, written: FileWritten | null, name: string, type: string): void {
    this.runs.delete(card);
    if (!written) this.set(card, IDLE);
    else if (!written.ok) this.set(card, { kind: 'failed', text: `Not written: ${written.reason}` });
    else {
      download(name, type, written.bytes);
      this.set(card, { kind: 'done', text: `${name} written: ${written.summary}` });
    }
  }

  private writeProject(): void {
    const name = this.file.write(this.projectKind());
    if (name !== null) this.set(PROJECT, { kind: 'done', text: `${name} written` });
  }

  setTolerance(change: (value: number) => number): void {
    this.tolerancePercent.update((value) => Math.min(5, Math.max(0.0001, change(value))));
  }
}
