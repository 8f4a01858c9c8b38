import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { CAM_LAWS, type LinkageDriver } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { LAW_LABELS } from '../stage/words';
import { stretchesOf, type Stretch } from './driver-tables';

/** The program of a cam as a table: up to which angle, to which lift, by which law; a dwell keeps the lift before. */
@Component({
  selector: 'kz-program-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, RunDirective, SelectComponent],
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
          kzRun="drive.stretch-remove"
          [kzOf]="{ driver: driver(), at: i }"
          kzTip="Removes the stretch; the next begins where it began"
          [attr.aria-label]="'Remove stretch ' + (i + 1)"
        >
          ✕
        </button>
      </div>
    }
    <button class="button" kzRun="drive.stretch-add" [kzOf]="driver()" kzTip="Halves the last stretch">
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
  readonly driver = input.required<LinkageDriver>();
  readonly changed = output<readonly Stretch[]>();
  readonly studio = inject(Studio);
  readonly stretches = computed(() => stretchesOf(this.driver()));
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
}
