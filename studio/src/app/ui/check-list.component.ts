import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** A line of a menu that is on or off. */
export interface Check<T> {
  readonly value: T;
  readonly label: string;
  readonly on: boolean;
  readonly disabled?: boolean;
}

/** Lines of a menu that are switched on and off while it stays open; a rule between groups. */
@Component({
  selector: 'kz-check-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="list"
      role="group"
      tabindex="-1"
      [attr.aria-label]="name()"
      (click)="$event.stopPropagation()"
      (keydown.enter)="$event.stopPropagation()"
    >
      @for (group of groups(); track $index; let first = $first) {
        @if (!first) {
          <hr />
        }
        @for (check of group; track check.value) {
          <button
            class="button bare toggle"
            role="menuitemcheckbox"
            [attr.aria-checked]="check.on"
            [disabled]="check.disabled ?? false"
            (click)="toggled.emit(check.value)"
          >
            {{ check.label }}
          </button>
        }
      }
    </div>
  `,
  styles: `
    .list {
      display: flex;
      flex-direction: column;
      align-items: flex-start;
      padding: 4px 8px;
    }
    hr {
      width: 100%;
      margin: 4px 0;
      border: 0;
      border-top: 1px solid var(--rule);
    }
  `,
})
export class CheckListComponent<T> {
  readonly name = input.required<string>();
  readonly groups = input.required<readonly (readonly Check<T>[])[]>();
  readonly toggled = output<T>();
}
