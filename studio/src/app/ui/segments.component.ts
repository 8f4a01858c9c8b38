import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { OneStopDirective } from './one-stop.directive';
import type { Option } from './option';

/** One of a few, all in sight. No value: none of them, or mixed. */
@Component({
  selector: 'kz-segments',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, OneStopDirective],
  host: { '[class.wide]': 'wide()' },
  template: `
    <div class="choice" role="group" kzOneStop [attr.aria-label]="name()">
      @for (option of options(); track option.value) {
        <button
          [attr.aria-pressed]="option.value === value()"
          [matTooltip]="option.tip ?? option.label"
          (click)="chosen.emit(option.value)"
        >
          {{ option.label }}
        </button>
      }
    </div>
  `,
  styles: `
    :host {
      display: inline-flex;
      min-width: 0;
    }
    :host(.wide) {
      display: flex;
      flex: 1;
    }
    .choice {
      flex: 1;
    }
    :host(.wide) button {
      flex: 1;
      padding: 0 2px;
    }
  `,
})
export class SegmentsComponent<T> {
  readonly name = input.required<string>();
  readonly options = input.required<readonly Option<T>[]>();
  readonly value = input<T | null>(null);
  readonly wide = input(false);
  readonly chosen = output<T>();
}
