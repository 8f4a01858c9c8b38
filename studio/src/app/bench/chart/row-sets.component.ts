import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatTooltip } from '@angular/material/tooltip';
import { RowSets } from '../plot/row-sets';

/** Named sets of rows, in the menu Rows: shown and hidden, kept from what is chosen, let go of. */
@Component({
  selector: 'kz-row-sets',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon, MatTooltip],
  template: `
    <div
      class="list"
      role="group"
      tabindex="-1"
      aria-label="Sets of rows"
      (click)="$event.stopPropagation()"
      (keydown)="onKey($event)"
    >
      <hr />
      @for (set of sets.all(); track set.name) {
        <div class="line">
          <button
            class="button bare toggle"
            role="menuitemcheckbox"
            [attr.aria-checked]="sets.current()?.name === set.name"
            [matTooltip]="'Only these rows: ' + set.channels.length + ' channels'"
            (click)="sets.show(set.name)"
          >
            {{ set.name }} <span class="numbers">{{ set.channels.length }}</span>
          </button>
          <button
            class="button bare icon-only"
            [attr.aria-label]="'Let go of the set ' + set.name"
            matTooltip="Let go of this set; the rows stay"
            (click)="sets.remove(set.name)"
          >
            <mat-icon svgIcon="close" />
          </button>
        </div>
      }
      <div class="line keep">
        <input
          class="input"
          aria-label="Name of a set of rows"
          [placeholder]="offered()"
          [value]="name()"
          (input)="name.set($any($event.target).value)"
        />
        <button
          class="button"
          [disabled]="sets.chosen().length === 0"
          matTooltip="Keep the chosen rows under this name; with nothing chosen, all that show"
          (click)="keep()"
        >
          Keep rows
        </button>
      </div>
    </div>
  `,
  styles: `
    .list {
      padding: 0 8px 6px;
      width: 250px;
    }
    hr {
      margin: 4px 0;
      border: 0;
      border-top: 1px solid var(--rule);
    }
    .line {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 6px;
    }
    .keep {
      margin-top: 4px;
    }
    .input {
      flex: 1;
      min-width: 0;
    }
  `,
})
export class RowSetsComponent {
  readonly sets = inject(RowSets);
  readonly name = signal('');
  readonly offered = computed(() => this.sets.nameOffered());

  keep(): void {
    this.sets.keep(this.name().trim() || this.offered());
    this.name.set('');
  }

  /** Keys typed into the name belong to it, not to the menu around it. */
  onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape' || event.key === 'Tab') return;
    event.stopPropagation();
    if (event.key === 'Enter' && event.target instanceof HTMLInputElement) this.keep();
  }
}
