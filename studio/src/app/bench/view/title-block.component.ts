import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { shownNumber } from '../../ui/amount';
import { Stage } from '../stage/stage';
import { ShotLook } from './shot-look';

/** The drawing's title block: which lens, where the floor is, how wide the grid is. */
@Component({
  selector: 'kz-title-block',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="block numbers">
      <span>{{ lens() }}</span>
      <span>floor {{ floor() }} m</span>
      <span>grid 1 m</span>
    </div>
  `,
  styles: `
    .block {
      display: flex;
      border: 1px solid var(--ink);
      background: color-mix(in srgb, var(--paper) 85%, transparent);
      font-size: 11px;
      line-height: 20px;
    }
    span {
      padding: 0 8px;
      border-left: 1px solid var(--ink);
      white-space: nowrap;
    }
    span:first-child {
      border-left: 0;
    }
  `,
})
export class TitleBlockComponent {
  readonly focalLength = input.required<number>();
  private readonly stage = inject(Stage);
  private readonly shot = inject(ShotLook);
  readonly floor = computed(() => shownNumber(this.stage.shown()?.floor ?? 0, 2));
  readonly lens = computed(() => {
    const camera = this.shot.part();
    return `${camera ? `${camera.name}, ` : ''}${shownNumber(this.focalLength(), 0)} mm`;
  });
}
