import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { CommandRegistry } from '../../commands/registry';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { Proposals } from '../stage/proposals';
import { TimeTools } from './time-tools';

/** What is shown and not yet kept: an edit of time, or the Stakes, with Apply and Discard. */
@Component({
  selector: 'kz-pending-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, RunDirective],
  template: `
    @if (tools.pending() || tools.stakes().length > 0) {
      <div class="bar" role="status">
        <strong>{{ title() }}</strong>
        <span class="told" [matTooltip]="tools.told()">{{
          tools.told() || 'one set; set at least one more at another frame'
        }}</span>
        <button class="button main" kzRun="time.apply" kzTip="Keep what is shown">Apply</button>
        <button class="button bare" kzRun="time.discard" kzTip="Leave all as it was">Discard</button>
      </div>
    }
  `,
  styles: `
    :host {
      pointer-events: none;
    }
    .bar {
      display: flex;
      align-items: center;
      gap: 10px;
      height: 100%;
      padding: 0 12px;
      border-left: 3px solid var(--select);
      background: var(--select-ground);
      pointer-events: auto;
    }
    strong {
      flex: none;
    }
    strong {
      color: var(--select);
      font-weight: 600;
    }
    .told {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class PendingBarComponent {
  readonly studio = inject(Studio);
  readonly tools = inject(TimeTools);
  readonly registry = inject(CommandRegistry);
  readonly title = computed(() => this.tools.pending()?.title ?? 'Stakes');

  constructor() {
    effect(() => this.tools.showPending());
    const proposals = inject(Proposals);
    inject(DestroyRef).onDestroy(() => {
      this.tools.hide();
      proposals.standing.set(null);
    });
  }
}
