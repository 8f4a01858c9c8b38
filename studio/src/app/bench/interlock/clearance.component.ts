import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { Interlock } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { shownFrame, shownNumber } from '../../ui/amount';
import { whenIdle } from '../../ui/when-idle';
import { MANY_TRIANGLES } from './clearance';
import { MeasuredClearances } from './measured-clearances';

/** How near what an interlock ties come to each other: measured when the page rests, or, of big meshes, when it is asked for. */
@Component({
  selector: 'kz-clearance',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, RunDirective],
  template: `
    @if (shown(); as least) {
      <p
        class="soft"
        matTooltip="The least distance of the two, from what is waited for to the end of the move that waits"
      >
        @if (least.distance > 0) {
          clear by <span class="numbers">{{ words(least.distance) }} m</span>, least at
          <span class="numbers">f {{ frame(least.frame) }}</span>
        } @else {
          <span class="bad">they touch at f {{ frame(least.frame) }}</span>
        }
      </p>
    } @else if (isBig()) {
      <button
        class="button bare"
        kzRun="interlock.measure"
        [kzOf]="lock()"
        kzTip="These meshes have many triangles"
      >
        Measure the clearance
      </button>
    }
  `,
  styles: `
    p {
      margin: 8px 0 0;
      font-size: 12.5px;
    }
    .bad {
      color: var(--warn);
    }
  `,
})
export class ClearanceComponent {
  readonly lock = input.required<Interlock>();
  private readonly clearances = inject(MeasuredClearances);
  readonly frame = shownFrame;
  private readonly pair = computed(() => this.clearances.pairOf(this.lock()));
  readonly isBig = computed(() => (this.pair()?.triangles ?? 0) > MANY_TRIANGLES);
  readonly shown = computed(() => this.clearances.of(this.lock()));

  constructor() {
    effect(() => {
      const pair = this.pair();
      const lock = this.lock();
      if (pair && !this.isBig())
        whenIdle(() => {
          if (pair === this.pair()) this.clearances.measure(lock);
        });
    });
  }

  words(metres: number): string {
    return shownNumber(metres, 3);
  }
}
