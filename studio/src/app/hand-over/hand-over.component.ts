import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { compile, csvCarries, gltfCarries, frameList } from '@kaizen/core';
import { ProjectFile } from '../open/project-file';
import { download, fileName, type ProjectFileKind } from '../ui/download';
import { Assets } from '../state/assets';
import { Studio } from '../state/studio';
import { NumberFieldComponent } from '../ui/number-field.component';
import type { Option } from '../ui/option';
import { SegmentsComponent } from '../ui/segments.component';
import { runCsv, runGltf, type ExportRun } from '../workers/export.client';
import type { Written } from '../workers/export-api';

import { FormatCardComponent, type CardState } from './format-card.component';

type Card = 'glb' | 'gltf' | 'csv' | 'project';
const GLTF_CARDS = [
  { card: 'glb', title: 'glTF, one file' },
  { card: 'gltf', title: 'glTF, as text' },
] as const;
const PROJECT_KINDS: readonly Option<ProjectFileKind>[] = [
  { value: 'json', label: 'one file', tip: 'A .kaizen.json with everything inside' },
  { value: 'zip', label: 'with its assets', tip: 'A .kaizen.zip with the models beside the project' },
];
const IDLE: CardState = { kind: 'idle' };

/** Hand over: the files that the next program reads, and what each can carry. */
@Component({
  selector: 'kz-hand-over',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormatCardComponent, MatTooltip, NumberFieldComponent, RouterLink, SegmentsComponent],
  templateUrl: './hand-over.component.html',
  styleUrl: './hand-over.component.scss',
})
export class HandOverComponent {
  readonly studio = inject(Studio);
  private readonly beside = inject(Assets);
  private readonly file = inject(ProjectFile);
  readonly states = signal<Readonly<Record<Card, CardState>>>({
    glb: IDLE,
    gltf: IDLE,
    csv: IDLE,
    project: IDLE,
  });
  readonly bake = signal(false);
  /** Share of a curve's range, in per cent. */
  readonly tolerancePercent = signal(0.01);
  readonly rates = signal(false);
  readonly projectKind = signal<ProjectFileKind>('json');
  readonly projectKinds = PROJECT_KINDS;
  readonly gltfCards = GLTF_CARDS;
  private readonly runs = new Map<Card, ExportRun>();

  constructor() {
    inject(DestroyRef).onDestroy(() => this.runs.forEach((run) => run.cancel()));
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
  readonly carriedGltf = computed(() => {
    const project = this.studio.project();
    return project ? gltfCarries(project) : null;
  });
  readonly carriedCsv = computed(() => {
    const project = this.studio.project();
    const compiled = this.compiled();
    if (!project || !compiled?.ok) return null;
    const frames = frameList(project.range.start, project.range.end).length;
    return csvCarries(project, frames, compiled.value.moving.length);
  });
  readonly assets = computed(() => this.studio.project()?.assets.length ?? 0);

  private set(card: Card, state: CardState): void {
    this.states.update((states) => ({ ...states, [card]: state }));
  }

  writeGltf(card: 'glb' | 'gltf'): void {
    const project = this.studio.project();
    if (!project) return;
    const text = card === 'gltf';
    const choice = { bake: this.bake(), text, tolerance: this.tolerancePercent() / 100 };
    this.set(card, { kind: 'writing', share: null });
    this.follow(
      card,
      runGltf({ project, bytes: this.beside.beside }, choice),
      `${this.stem()}.${card}`,
      text ? 'model/gltf+json' : 'model/gltf-binary',
    );
  }

  writeCsv(): void {
    const project = this.studio.project();
    if (!project) return;
    this.set('csv', { kind: 'writing', share: 0 });
    const progress = (share: number) => this.set('csv', { kind: 'writing', share });
    this.follow('csv', runCsv(project, { rates: this.rates() }, progress), `${this.stem()}.csv`, 'text/csv');
  }

  private follow(card: Card, run: ExportRun, name: string, type: string): void {
    this.runs.set(card, run);
    void run.result.then((written) => this.finish(card, written, name, type));
  }

  private finish(card: Card, written: Written | null, name: string, type: string): void {
    this.runs.delete(card);
    if (!written) this.set(card, IDLE);
    else if (!written.ok) this.set(card, { kind: 'failed', text: `Not written: ${written.reason}` });
    else {
      download(name, type, written.bytes);
      this.set(card, { kind: 'done', text: `${name} written: ${written.summary}` });
    }
  }

  cancel(card: Card): void {
    this.runs.get(card)?.cancel();
  }

  writeProject(): void {
    const name = this.file.write(this.projectKind());
    if (name !== null) this.set('project', { kind: 'done', text: `${name} written` });
  }

  setTolerance(change: (value: number) => number): void {
    this.tolerancePercent.update((value) => Math.min(5, Math.max(0.0001, change(value))));
  }
}
