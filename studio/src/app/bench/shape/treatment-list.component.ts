import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ApplicationRef, ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatMenu, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import {
  addTreatment,
  bake,
  curveOf,
  cycleOf,
  moveTreatment,
  newTreatment,
  removeTreatment,
  repeatingEnd,
  setTreatment,
  weightChannel,
  weightCurve,
  type Edited,
  type Project,
  type Treatment,
  type TreatmentKind,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { decimalsOf, shownFrame, shownNumber } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { optionsOf } from '../../ui/option';
import { channelLabel } from '../channel-label';
import { ShapeCommands } from './shape-commands';
import {
  beyondText,
  fieldNumber,
  isRefused,
  TREATMENT_LABELS,
  treatmentFields,
  withField,
  type TreatmentField,
} from './treatment-fields';

/** What lies over a channel's curve: a list in the order in which it is laid, each with its numbers and weight. */
@Component({
  selector: 'kz-treatment-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    MatIcon,
    MatMenu,
    MatMenuItem,
    MatMenuTrigger,
    MatTooltip,
    NumberFieldComponent,
  ],
  templateUrl: './treatment-list.component.html',
  styleUrls: ['../side-sheet/sheet.scss', './treatment-list.component.scss'],
})
export class TreatmentListComponent {
  readonly channel = input.required<string>();
  readonly studio = inject(Studio);
  readonly shapes = inject(ShapeCommands);
  private readonly application = inject(ApplicationRef);
  private readonly notices = inject(Notices);
  readonly kinds = optionsOf(TREATMENT_LABELS);
  readonly labels = TREATMENT_LABELS;

  readonly curve = computed(() => {
    const project = this.studio.project();
    return project ? curveOf(project, this.channel()) : undefined;
  });
  readonly treatments = computed(() => this.curve()?.treatments ?? []);
  readonly unit = computed(() => {
    const project = this.studio.project();
    return project ? channelLabel(project, this.channel()).unit : '';
  });
  readonly locked = computed(() => this.studio.readOnly() || (this.curve()?.locked ?? false));

  fields(treatment: Treatment) {
    return treatmentFields(treatment).map((field) => {
      const value = fieldNumber(treatment, field);
      const unit = field.unit === 'value' ? this.unit() : field.unit;
      const decimals = field.whole
        ? 0
        : field.unit === 'f'
          ? null
          : field.unit === 'times'
            ? 3
            : decimalsOf(unit);
      return { field, value, unit, decimals };
    });
  }

  private edit(label: string, change: (project: Project, channel: string) => Project | Edited): void {
    const channel = this.channel();
    this.studio.edit(label, (project) => change(project, channel));
  }

  add(kind: TreatmentKind): void {
    const height = { '°': 5, m: 0.05, mm: 5 }[this.unit()] ?? 0.1;
    this.edit(`Lay ${TREATMENT_LABELS[kind].toLowerCase()} over`, (project, channel) =>
      addTreatment(project, channel, newTreatment(kind, height)),
    );
  }

  set(index: number, treatment: Treatment, label = 'Set a treatment'): void {
    if (isRefused(treatment)) {
      this.notices.warn('“At least” is above “At most”: raise the upper bound or lower the other one first');
      return;
    }
    this.edit(label, (project, channel) => setTreatment(project, channel, index, treatment));
  }

  setField(
    index: number,
    treatment: Treatment,
    field: TreatmentField,
    change: (value: number) => number,
  ): void {
    const value = change(fieldNumber(treatment, field) ?? field.fallback);
    const beyond = beyondText(field, value);
    if (beyond !== null) this.notices.warn(beyond);
    this.set(index, withField(treatment, field, value), field.label);
  }

  /**
   * Puts an optional number in, or leaves it out. A noise closes over the loop's round, else over the range; a bound begins at the
   * keys' own least or greatest value, where it changes nothing yet.
   */
  toggleField(index: number, treatment: Treatment, field: TreatmentField): void {
    const value = fieldNumber(treatment, field);
    this.set(
      index,
      withField(treatment, field, value === null ? this.firstNumber(field) : null),
      field.label,
    );
  }

  private firstNumber(field: TreatmentField): number {
    const project = this.studio.project();
    const curve = this.curve();
    const values = curve?.keys.map(({ value }) => value) ?? [];
    if (field.name === 'min' && values.length > 0) return values.reduce((a, b) => Math.min(a, b));
    if (field.name === 'max' && values.length > 0) return values.reduce((a, b) => Math.max(a, b));
    if (field.name !== 'loop' || !project) return field.fallback;
    const end = curve && repeatingEnd(curve);
    const cycle = curve && end ? cycleOf(curve, end) : null;
    return cycle?.period ?? project.range.end - project.range.start;
  }

  weight(treatment: Treatment): readonly number[] {
    return typeof treatment.weight === 'number' ? [treatment.weight] : [];
  }

  setWeight(index: number, treatment: Treatment, change: (value: number) => number): void {
    if (typeof treatment.weight === 'number')
      this.set(index, { ...treatment, weight: change(treatment.weight) }, 'Weight');
  }

  hasCurve(treatment: Treatment): boolean {
    return typeof treatment.weight !== 'number';
  }

  /** Makes the weight a curve over the range, or a number again, and draws it in the Chart. */
  toggleWeight(index: number, treatment: Treatment): void {
    const project = this.studio.project();
    if (!project) return;
    if (typeof treatment.weight === 'number') {
      const { start, end } = project.range;
      this.set(
        index,
        { ...treatment, weight: weightCurve(treatment.weight, start, end) },
        'Weight as a curve',
      );
      this.drawWeight(index);
      return;
    }
    this.set(index, { ...treatment, weight: treatment.weight.keys[0]?.value ?? 1 }, 'Weight as a number');
    this.studio.pick({ channels: [this.channel()], keys: [], handles: [] });
  }

  drawWeight(index: number): void {
    const channel = this.channel();
    this.studio.pick({ channels: [channel, weightChannel(channel, index)], keys: [], handles: [] });
    if (this.studio.bench().density === 'ticks') this.studio.set({ density: 'curves' });
  }

  mute(index: number, treatment: Treatment): void {
    this.set(
      index,
      { ...treatment, muted: !treatment.muted },
      treatment.muted ? 'Unmute a treatment' : 'Mute a treatment',
    );
  }

  remove(index: number): void {
    this.edit('Remove a treatment', (project, channel) => removeTreatment(project, channel, index));
  }

  move(from: number, to: number): void {
    this.edit('Order of treatments', (project, channel) => moveTreatment(project, channel, from, to));
  }

  drop(event: CdkDragDrop<unknown>): void {
    if (event.previousIndex !== event.currentIndex) this.move(event.previousIndex, event.currentIndex);
  }

  onGripKey(event: KeyboardEvent, index: number): void {
    const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const list = (event.currentTarget as HTMLElement).closest('.list');
    this.move(index, index + step);
    this.application.tick();
    list?.querySelectorAll<HTMLElement>('.grip')[index + step]?.focus();
  }

  /** Keys on every frame of what shows, in place of keys and treatments. */
  bakeThem(): void {
    const project = this.studio.project();
    if (!project) return;
    const made = bake(project, [this.channel()], 1, project.range);
    this.edit('Bake treatments to keys', () => made.project);
    const where = made.at ? ` at f ${shownFrame(made.at.frame)}` : '';
    this.notices.tell(
      `Baked to ${made.keysAfter} keys, one a frame; at most ${shownNumber(made.error, 5)} ${this.unit()} off between them${where}`,
      { label: 'Undo', run: () => this.studio.undo() },
    );
  }
}
