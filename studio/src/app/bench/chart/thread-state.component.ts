import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { Interlock } from '@kaizen/core';
import { standingWords } from '../interlock/interlock-hands';
import { Stage } from '../stage/stage';

/** How an interlock stands: frames to spare or missing; the whole of it in the tooltip. */
@Component({
  selector: 'kz-thread-state',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `<span class="numbers" [class.bad]="state().bad" [matTooltip]="state().whole">{{
    state().short
  }}</span>`,
  styles: `
    .numbers {
      font-size: 12px;
      color: var(--ink-soft);
      white-space: nowrap;
    }
    .bad {
      color: var(--warn);
    }
  `,
})
export class ThreadStateComponent {
  readonly lock = input.required<Interlock>();
  private readonly stage = inject(Stage);
  readonly state = computed(() => {
    const project = this.stage.shown();
    return project ? standingWords(project, this.lock()) : { short: '', whole: '', bad: false };
  });
}
