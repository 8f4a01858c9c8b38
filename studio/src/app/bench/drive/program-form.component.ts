import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { CAM_LAWS } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { LAW_LABELS } from '../stage/words';

/** One stretch of a cam, as the file has it. */
interface Stretch {
  readonly to: number;
  readonly lift?: number;
  readonly law: string;
}

/** The program of a cam as a table: up to which angle, to which lift, by which law; a dwell keeps the lift before. */
@Component({
  selector: 'kz-program-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SelectComponent],
  template: `
    <span class="label">Up to the angle … to the lift … by the law</span>
    @for (stretch of stretches(); track $index; let i = $index) {
      <div class="row">
        <kz-number-field
          [name]="'Angle of stretch ' + (i + 1)"
          unit="°"
          tip="Up to this angle; the last one ends at 360°"
          [values]="[stretch.to]"
          [decimals]="1"
          [disabled]="studio.readOnly()"
          (changed)="set(i, { to: $event(stretch.to) })"
        />
        <kz-number-field
          [name]="'Lift of stretch ' + (i + 1)"
          unit="m"
          tip="The lift that it comes to"
          [values]="stretch.lift === undefined ? [] : [stretch.lift]"
          [decimals]="3"
          [disabled]="studio.readOnly() || stretch.law === 'dwell'"
          (changed)="set(i, { lift: $event(stretch.lift ?? 0) })"
        />
        <kz-select
          [name]="'Law of stretch ' + (i + 1)"
          tip="How it gets there"
          [options]="laws"
          [value]="stretch.law"
          (chosen)="setLaw(i, $event)"
        />
        <button
          class="button bare"
          [disabled]="studio.readOnly() || stretches().length < 2"
          [attr.aria-label]="'Remove stretch ' + (i + 1)"
          matTooltip="Removes the stretch; the one before it goes on up to its angle"
          (click)="remove(i)"
        >
          ✕
        </button>
      </div>
    }
    <button
      class="button"
      [disabled]="studio.readOnly()"
      matTooltip="Halves the last stretch"
      (click)="add()"
    >
      Another stretch
    </button>
  `,
  styles: `
    :host {
      display: block;
    }
    .row {
      display: grid;
      grid-template-columns: 66px 78px minmax(0, 1fr) auto;
      gap: 4px;
      margin-bottom: 4px;
    }
  `,
})
export class ProgramFormComponent {
  readonly program = input.required<unknown>();
  readonly changed = output<readonly Stretch[]>();
  readonly studio = inject(Studio);
  readonly stretches = computed(() => this.program() as readonly Stretch[]);
  readonly laws: readonly Option<string>[] = [
    { value: 'dwell', label: 'dwell' },
    ...CAM_LAWS.map((value) => ({ value, label: LAW_LABELS[value] })),
  ];

  set(at: number, change: Partial<Stretch>): void {
    this.changed.emit(this.stretches().map((each, i) => (i === at ? { ...each, ...change } : each)));
  }

  setLaw(at: number, law: string): void {
    const { to, lift = 0 } = this.stretches()[at]!;
    const made = law === 'dwell' ? { to, law } : { to, lift, law };
    this.changed.emit(this.stretches().map((each, i) => (i === at ? made : each)));
  }

  add(): void {
    const list = this.stretches();
    const last = list.at(-1)!;
    const from = list.at(-2)?.to ?? 0;
    this.changed.emit([...list.slice(0, -1), { ...last, to: (from + last.to) / 2 }, last]);
  }

  remove(at: number): void {
    const list = this.stretches();
    const left = list.filter((_, i) => i !== at);
    this.changed.emit(
      left.map((each, i) => (i === left.length - 1 ? { ...each, to: list.at(-1)!.to } : each)),
    );
  }
}
