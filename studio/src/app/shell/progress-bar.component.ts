import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { offerCommands } from '../commands/offer-commands';
import { RunDirective } from '../commands/run.directive';
import { Progress } from '../ui/progress';

/** Tells how far long work is, and ends it where that can be done. */
@Component({
  selector: 'kz-progress-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    @if (progress.current(); as work) {
      <div class="work" role="status">
        <span>{{ work.label }}</span>
        <progress [value]="work.share" max="1" [attr.aria-label]="work.label"></progress>
        <span class="numbers">{{ (work.share * 100).toFixed(0) }} %</span>
        @if (work.cancel) {
          <button class="button" kzRun="work.stop" kzTip="Stop; nothing is changed (Esc)">Stop</button>
        }
      </div>
    }
  `,
  styles: `
    .work {
      position: fixed;
      top: 52px;
      left: 50%;
      z-index: 950;
      display: flex;
      align-items: center;
      gap: 12px;
      padding: 8px 14px;
      border: 1px solid var(--ink);
      border-radius: var(--radius);
      background: var(--sheet);
      transform: translateX(-50%);
    }
    progress {
      width: 220px;
      height: 8px;
      accent-color: var(--select);
    }
    .numbers {
      min-width: 44px;
      text-align: right;
    }
  `,
  host: { '(document:keydown.escape)': 'progress.current()?.cancel?.()' },
})
export class ProgressBarComponent {
  readonly progress = inject(Progress);

  constructor() {
    offerCommands([
      {
        id: 'work.stop',
        label: 'Stop the work that is under way; nothing is changed',
        group: 'Project',
        when: () => (this.progress.current()?.cancel ?? null) !== null,
        run: () => this.progress.current()?.cancel?.(),
      },
    ]);
  }
}
