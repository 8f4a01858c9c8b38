import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { Constraint } from '@kaizen/core';
import { Standing } from '../stage/standing';

/** Whether a constraint is met at the playhead, in a word; the whole reason in the tooltip. */
@Component({
  selector: 'kz-span-state',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `<span class="numbers" [class.bad]="state().bad" [matTooltip]="state().whole">{{
    state().word
  }}</span>`,
  styles: `
    .numbers {
      font-size: 12px;
      color: var(--ink-soft);
    }
    .bad {
      color: var(--warn);
    }
  `,
})
export class SpanStateComponent {
  readonly constraint = input.required<Constraint>();
  private readonly standing = inject(Standing);
  readonly state = computed(() => this.standing.ofConstraint(this.constraint()));
}
