import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { CueCardComponent } from '../../ui/cue-card.component';
import { Stage } from '../stage/stage';
import { ViewControl } from '../stage/view-control';
import { RideDrag } from './ride-drag';

interface Point {
  readonly x: number;
  readonly y: number;
}

/** What a dragged row would do: an arrow in the view from the part into a seat on what it would ride on, and words beside the pointer. */
@Component({
  selector: 'kz-ride-cue',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CueCardComponent],
  template: `
    @if (drag.shown(); as shown) {
      @if (arrow(); as path) {
        <svg aria-hidden="true" [class.refused]="shown.refused">
          <path class="halo" [attr.d]="path.line" />
          <path class="line" [attr.d]="path.line" />
          <path class="seat" [attr.d]="path.seat" />
          <circle [attr.cx]="path.from.x" [attr.cy]="path.from.y" r="4" />
        </svg>
      }
      <kz-cue-card [refused]="shown.refused" [x]="shown.x" [y]="shown.y">
        <strong>{{ shown.title }}</strong>
        <span>
          {{ shown.words }}
          @if (shown.jump) {
            <span class="numbers">{{ shown.jump }}</span>
          }
        </span>
      </kz-cue-card>
    }
  `,
  styles: `
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      pointer-events: none;
    }
    path {
      fill: none;
    }
    .halo {
      stroke: var(--sheet);
      stroke-width: 7;
    }
    .line,
    .seat {
      stroke: var(--select);
      stroke-width: 3;
    }
    circle {
      fill: var(--select);
      stroke: var(--sheet);
    }
    .refused .line,
    .refused .seat {
      stroke: var(--warn);
    }
    strong {
      font-weight: 600;
    }
    .numbers {
      margin-left: 10px;
      font-size: 12px;
    }
  `,
})
export class RideCueComponent {
  readonly drag = inject(RideDrag);
  private readonly stage = inject(Stage);
  private readonly view = inject(ViewControl);
  private readonly ends = computed(() => {
    const shown = this.drag.shown();
    const on = shown?.landing?.on;
    return shown && on ? `${shown.part} ${on}` : '';
  });

  /** From the pivot of the part up and over into a seat on the other’s. */
  readonly arrow = computed(() => {
    const [part, on] = this.ends().split(' ');
    const from = part ? this.pivotOf(part) : null;
    const to = on ? this.pivotOf(on) : null;
    if (!from || !to) return null;
    const rise = Math.min(from.y, to.y) - 46;
    const end = `${to.x} ${to.y - 10}`;
    return {
      from,
      line: `M ${from.x} ${from.y} C ${from.x} ${rise}, ${to.x} ${rise}, ${end} m -6 -8 l 6 9 l 6 -9`,
      seat: `M ${to.x - 15} ${to.y - 12} a 15 15 0 0 0 30 0`,
    };
  });

  private pivotOf(id: string): Point | null {
    const now = this.stage.now();
    const i = now?.program.structure.partIndex.get(id);
    const world = i === undefined ? undefined : now?.out.world[i];
    const pivot = i === undefined ? undefined : now?.program.structure.parts[i]?.pivot;
    if (!world || !pivot) return null;
    const at = (row: number) =>
      world[row]! * pivot[0] + world[4 + row]! * pivot[1] + world[8 + row]! * pivot[2] + world[12 + row]!;
    return this.view.onScreen([at(0), at(1), at(2)]);
  }
}
