import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { groupBy } from './group-by';
import type { Option } from './option';

/** One of many, from a list; under headings where the options have groups. */
@Component({
  selector: 'kz-select',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `
    <label class="field">
      @if (label()) {
        <span class="label">{{ label() }}</span>
      }
      <select
        class="input"
        [attr.aria-label]="name() || label()"
        [matTooltip]="tip()"
        (change)="choose($any($event.target).value)"
      >
        @if (mixed()) {
          <option selected disabled>mixed</option>
        }
        @for (group of groups(); track group.name) {
          @if (group.name) {
            <optgroup [label]="group.name">
              @for (option of group.options; track option.value) {
                <option [value]="indexOf(option)" [selected]="isChosen(option)">{{ option.label }}</option>
              }
            </optgroup>
          } @else {
            @for (option of group.options; track option.value) {
              <option [value]="indexOf(option)" [selected]="isChosen(option)">{{ option.label }}</option>
            }
          }
        }
      </select>
    </label>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
  `,
})
export class SelectComponent<T> {
  readonly label = input('');
  /** What a screen reader hears where there is no visible label. */
  readonly name = input('');
  readonly tip = input('');
  readonly options = input.required<readonly Option<T>[]>();
  readonly value = input.required<T>();
  /** Stands for several that differ: choosing one sets all. */
  readonly mixed = input(false);
  readonly chosen = output<T>();
  readonly groups = computed(() =>
    [...groupBy(this.options(), ({ group }) => group ?? '')].map(([name, options]) => ({ name, options })),
  );

  indexOf(option: Option<T>): number {
    return this.options().indexOf(option);
  }

  isChosen(option: Option<T>): boolean {
    return !this.mixed() && option.value === this.value();
  }

  choose(index: string): void {
    const option = this.options()[Number(index)];
    if (option) this.chosen.emit(option.value);
  }
}
