import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { KeyRef } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { threadsOf } from '../plot/thread-rows';
import { Stage } from '../stage/stage';
import { InterlockCardComponent } from './interlock-card.component';

/** What the one chosen key waits for, or two chosen keys tied. */
@Component({
  selector: 'kz-waits-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [InterlockCardComponent, RunDirective],
  template: `
    <section>
      <div class="section-head">
        <h3>Waits for</h3>
        @if (keys().length === 2) {
          <button class="button" kzRun="interlock.tie" kzTip="The later key waits for the earlier one">
            Tie the two
          </button>
        }
      </div>
      @for (lock of locks(); track lock.id) {
        <kz-interlock-card [lock]="lock" />
      } @empty {
        <p class="note">
          Nothing. A key can wait for a key of another channel, or for a value to be passed, and keeps its
          distance from then on.
        </p>
      }
      @if (oneKey()) {
        <div class="line">
          <button
            class="button"
            kzRun="interlock.after-key"
            kzTip="Pick a channel in the rows, or a part: the key waits for its last key before this one"
          >
            After a key …
          </button>
          <button
            class="button"
            kzRun="interlock.after-value"
            kzTip="Pick a channel in the rows, or a part: the key waits until its value has passed what it is at the playhead"
          >
            After a value …
          </button>
        </div>
      }
    </section>
  `,
  styleUrl: '../side-sheet/sheet.scss',
})
export class WaitsFormComponent {
  readonly keys = input.required<readonly KeyRef[]>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);

  readonly oneKey = computed(() => (this.keys().length === 1 ? this.keys()[0]! : null));
  readonly locks = computed(() => {
    const project = this.stage.shown();
    if (!project) return [];
    return this.keys().flatMap(({ channel, frame }) =>
      threadsOf(project, channel).filter((lock) => lock.frame === frame),
    );
  });
}
