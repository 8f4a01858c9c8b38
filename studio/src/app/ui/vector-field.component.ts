import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { NumberFieldComponent } from './number-field.component';

/** A change of one of three numbers: which, and what it becomes. */
export interface VectorChange {
  readonly axis: number;
  readonly change: (value: number) => number;
}

const LETTERS = ['X', 'Y', 'Z'] as const;

/** Three numbers along X, Y and Z in a row, each with its letter; over several things, as a number field is. */
@Component({
  selector: 'kz-vector-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent],
  template: `
    <span class="soft">{{ label() }}</span>
    @for (letter of letters; track letter; let i = $index) {
      <kz-number-field
        [name]="(name() || label()) + ' ' + letter"
        [badge]="letter"
        [unit]="unit()"
        [values]="of(i)"
        [decimals]="decimals(of(i))"
        [loose]="loose()[i] ?? false"
        [driven]="driven()[i] ?? false"
        [disabled]="disabled() || (driven()[i] ?? false)"
        [tip]="driven()[i] ? 'Driven: its driver gives the value' : tip() || label() + ' ' + letter"
        (changed)="changed.emit({ axis: i, change: $event })"
        (previewed)="previewed.emit($event && { axis: i, change: $event })"
      />
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 40px repeat(3, 1fr);
      gap: 5px;
      align-items: center;
      margin-bottom: 6px;
    }
  `,
})
export class VectorFieldComponent {
  readonly label = input.required<string>();
  /** What a screen reader hears before the letter, where the label alone would not do. */
  readonly name = input('');
  readonly unit = input('');
  readonly tip = input('');
  /** The three numbers; where it stands for several things, all that each of the three is. */
  readonly values = input.required<readonly (number | readonly number[])[]>();
  readonly loose = input<readonly boolean[]>([]);
  readonly driven = input<readonly boolean[]>([]);
  readonly disabled = input(false);
  readonly changed = output<VectorChange>();
  /** While one is scrubbed: what it would become; null when it is given up. */
  readonly previewed = output<VectorChange | null>();
  readonly letters = LETTERS;

  of(axis: number): readonly number[] {
    const value = this.values()[axis];
    return typeof value === 'number' ? [value] : (value ?? []);
  }

  /** Fewer decimals for large numbers, so that they are told whole in a narrow field. */
  decimals([value = 0]: readonly number[]): number {
    const [most, large] = this.unit() === '°' ? [1, 1000] : [2, 100];
    return Math.abs(value) >= large ? most - 1 : most;
  }
}
