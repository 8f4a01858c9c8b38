import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogRef } from '@angular/material/dialog';
import { MatIcon } from '@angular/material/icon';
import { MatTooltip } from '@angular/material/tooltip';
import { RunDirective } from '../../commands/run.directive';
import { RowSets } from './row-sets';

/** The dialog of named sets of rows: kept from what is chosen, shown alone, let go of. */
@Component({
  selector: 'kz-row-sets',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon, MatTooltip, RunDirective],
  template: `
    <h2>Sets of rows</h2>
    @if (sets.all().length === 0) {
      <p class="soft">
        Keep the rows that belong together under a name, and show them alone by one press in the menu Rows.
      </p>
    }
    @for (set of sets.all(); track set.name) {
      <div class="line">
        <button
          class="button bare toggle"
          kzRun="rows.set-show"
          [kzOf]="set.name"
          kzTip="Only these rows, or all again"
        >
          {{ set.name }}
        </button>
        <span class="soft numbers">{{ set.channels.length }} channels</span>
        <button
          class="button bare icon-only"
          kzRun="rows.set-remove"
          [kzOf]="set.name"
          kzTip="Let go of this set; the rows stay"
          [attr.aria-label]="'Let go of the set ' + set.name"
        >
          <mat-icon svgIcon="trash" />
        </button>
      </div>
    }
    <form class="line keep" (submit)="keep($event)">
      <input
        class="input"
        cdkFocusInitial
        aria-label="Name of a set of rows"
        [placeholder]="offered()"
        [value]="name()"
        (input)="name.set($any($event.target).value)"
      />
      <button
        class="button main"
        [disabled]="sets.chosen().length === 0"
        matTooltip="Keep the chosen rows under this name; with nothing chosen, all that show"
      >
        Keep {{ sets.chosen().length }} rows
      </button>
    </form>
    <div class="line end">
      <button class="button bare" matTooltip="Back to the Bench (Esc)" (click)="dialog.close()">Done</button>
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 16px 20px;
    }
    h2 {
      margin: 0 0 10px;
      font-size: 16px;
    }
    .line {
      display: flex;
      align-items: center;
      gap: 8px;
      margin: 6px 0;
    }
    .line .toggle {
      flex: 1;
      justify-content: flex-start;
      min-width: 0;
    }
    .keep {
      margin-top: 12px;
    }
    .input {
      flex: 1;
      min-width: 0;
    }
    .end {
      justify-content: flex-end;
    }
  `,
})
export class RowSetsComponent {
  readonly dialog = inject(MatDialogRef);
  readonly sets = inject(RowSets);
  readonly name = signal('');
  readonly offered = computed(() => this.sets.nameOffered());

  keep(event: Event): void {
    event.preventDefault();
    this.sets.keep(this.name().trim() || this.offered());
    this.dialog.close();
  }
}
