import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { RunDirective } from '../../commands/run.directive';
import type { TimeToolId } from './time-plans';
import { AT_ONCE, TimeTools } from './time-tools';

export interface ToolButton {
  readonly id: TimeToolId;
  readonly command: string;
  readonly label: string;
  readonly tip: string;
}

/** Buttons of edits of time: resting on one shows what it would do, pressing it does it. */
@Component({
  selector: 'kz-tool-buttons',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    @for (tool of tools(); track tool.id) {
      <button
        class="button"
        [class.armed]="time.armed() === tool.id"
        [kzRun]="tool.command"
        [kzOf]="atOnce"
        [kzTip]="tool.tip"
        (pointerenter)="time.show(tool.id)"
        (pointerleave)="time.hide()"
        (focus)="time.show(tool.id)"
        (blur)="time.hide()"
      >
        {{ tool.label }}
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 6px;
      margin-bottom: 8px;
    }
    .armed {
      border-color: var(--select);
      color: var(--select);
    }
  `,
})
export class ToolButtonsComponent {
  readonly time = inject(TimeTools);
  readonly atOnce = AT_ONCE;
  readonly tools = input.required<readonly ToolButton[]>();
}
