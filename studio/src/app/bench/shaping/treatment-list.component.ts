import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ApplicationRef, ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { curveOf, weightChannel, type Treatment } from '@kaizen/core';
import { MenuRunDirective } from '../../commands/menu-run.directive';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { optionsOf } from '../../ui/option';
import { channelLabel } from '../stage/channel-label';
import { fieldNumber, TREATMENT_LABELS, treatmentFields } from './treatment-fields';
import { TreatmentTools } from './treatment-tools';

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
    MatMenuContent,
    MatMenuItem,
    MatMenuTrigger,
    MatTooltip,
    MenuRunDirective,
    NumberFieldComponent,
    RunDirective,
  ],
  templateUrl: './treatment-list.component.html',
  styleUrls: ['../side-sheet/sheet.scss', './treatment-list.component.scss'],
})
export class TreatmentListComponent {
  readonly channel = input.required<string>();
  readonly studio = inject(Studio);
  private readonly application = inject(ApplicationRef);
  readonly tools = inject(TreatmentTools);
  readonly kinds = optionsOf(TREATMENT_LABELS);
  readonly labels = TREATMENT_LABELS;

  readonly curve = computed(() => {
    const project = this.studio.project();
    return project ? curveOf(project, this.channel()) : undefined;
  });
  readonly treatments = computed(() => this.curve()?.treatments ?? []);
  /** The treatments by their places. */
  readonly refs = computed(() => this.treatments().map((_, index) => ({ channel: this.channel(), index })));
  readonly unit = computed(() => {
    const project = this.studio.project();
    return project ? channelLabel(project, this.channel()).unit : '';
  });
  readonly locked = computed(() => this.tools.locked(this.channel()));

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

  weight(treatment: Treatment): readonly number[] {
    return typeof treatment.weight === 'number' ? [treatment.weight] : [];
  }

  hasCurve(treatment: Treatment): boolean {
    return typeof treatment.weight !== 'number';
  }

  isChosen(index: number): boolean {
    return this.studio.bench().lane === weightChannel(this.channel(), index);
  }

  choose(index: number): void {
    this.studio.set({ lane: weightChannel(this.channel(), index) });
  }

  drop(event: CdkDragDrop<unknown>): void {
    if (event.previousIndex !== event.currentIndex)
      this.tools.move(this.channel(), event.previousIndex, event.currentIndex);
  }

  onGripKey(event: KeyboardEvent, index: number): void {
    const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const list = (event.currentTarget as HTMLElement).closest('.list');
    this.tools.move(this.channel(), index, index + step);
    this.application.tick();
    list?.querySelectorAll<HTMLElement>('.grip')[index + step]?.focus();
  }
}
