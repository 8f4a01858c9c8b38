import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { Interlock } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame, shownNumber } from '../../ui/amount';
import { whenIdle } from '../../ui/when-idle';
import { ModelMeshes } from '../stage/model-meshes';
import { Stage } from '../stage/stage';
import { MANY_TRIANGLES, PairClearance, type Clearance } from './clearance';

/** How near what an interlock ties come to each other: measured when the page rests, or, of big meshes, when it is asked for. */
@Component({
  selector: 'kz-clearance',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
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
      <button class="button bare" matTooltip="These meshes have many triangles" (click)="measure()">
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
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly meshes = inject(ModelMeshes);
  private readonly found = signal<{ readonly of: PairClearance; readonly least: Clearance | null } | null>(
    null,
  );
  readonly frame = shownFrame;

  /** Of the project as it is kept: not anew at each step of a drag. */
  private readonly pair = computed(() => {
    const project = this.studio.project();
    return project?.interlocks.includes(this.lock())
      ? new PairClearance(project, this.lock(), this.meshes.of)
      : null;
  });
  readonly isBig = computed(() => (this.pair()?.triangles ?? 0) > MANY_TRIANGLES);
  readonly shown = computed(() => {
    const found = this.found();
    return found && found.of === this.pair() ? found.least : null;
  });

  constructor() {
    effect(() => {
      const pair = this.pair();
      if (pair && !this.isBig())
        whenIdle(() => {
          if (pair === this.pair()) this.measure();
        });
    });
  }

  measure(): void {
    const [pair, program] = [this.pair(), this.stage.program()];
    if (pair && program) this.found.set({ of: pair, least: pair.measure(program) });
  }

  words(metres: number): string {
    return shownNumber(metres, 3);
  }
}
