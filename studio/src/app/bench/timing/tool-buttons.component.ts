import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import type { TimeToolId } from './time-plans';
import { TimeTools } from './time-tools';

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
  imports: [MatTooltip],
  template: `
    @for (tool of tools(); track tool.id) {
      <button
        class="button"
        [class.armed]="time.armed() === tool.id"
        [disabled]="studio.readOnly()"
        [matTooltip]="registry.tip(tool.command, tool.tip)"
        (pointerenter)="time.show(tool.id)"
        (pointerleave)="time.hide()"
        (focus)="time.show(tool.id)"
        (blur)="time.hide()"
        (click)="time.run(tool.id)"
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
  readonly studio = inject(Studio);
  readonly time = inject(TimeTools);
  readonly registry = inject(CommandRegistry);
  readonly tools = input.required<readonly ToolButton[]>();
}
