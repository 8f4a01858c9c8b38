import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** Words beside the pointer while a row is dragged: what letting go would do, or why it can't. */
@Component({
  selector: 'kz-cue-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'status',
    '[class.refused]': 'refused()',
    '[style.left.px]': 'x() + 14',
    '[style.top.px]': 'y() + 16',
  },
  template: `<ng-content />`,
  styles: `
    :host {
      position: fixed;
      z-index: 20;
      display: flex;
      flex-direction: column;
      max-width: 340px;
      padding: 7px 12px;
      border-radius: var(--radius);
      background: var(--select);
      color: var(--sheet);
      pointer-events: none;
    }
    :host(.refused) {
      background: var(--warn);
    }
  `,
})
export class CueCardComponent {
  readonly refused = input(false);
  readonly x = input.required<number>();
  readonly y = input.required<number>();
}
