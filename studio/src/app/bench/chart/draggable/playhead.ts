import { Injectable, inject } from '@angular/core';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { frameAt } from '../../plot/plot';
import { Snapper } from '../../plot/snapper';
import { Stage } from '../../stage/stage';
import type { Draggable, Hand, HitScene } from './draggable';

interface Ruler {
  readonly kind: 'ruler';
}

/** The ruler, wherever nothing else stands on it: a press puts the playhead there, a drag scrubs. */
@Injectable({ providedIn: 'root' })
export class PlayheadHand implements Hand<Ruler> {
  private readonly stage = inject(Stage);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);

  begin(_: HitScene, down: PointerEvent): Drag {
    const before = this.stage.frame();
    const targets = this.snapper.targets();
    this.stage.stop();
    const move = (event: PointerEvent) =>
      this.stage.scrub(this.snapper.snap(frameAt(this.model.plot(), event.offsetX), targets, event));
    move(down);
    return { move, end: () => this.stage.goTo(this.stage.frame()), cancel: () => this.stage.goTo(before) };
  }
}

export const playhead: Draggable<Ruler> = {
  kind: 'ruler',
  areas: ['ruler', 'marks'],
  cursor: 'ew-resize',
  duringStakes: true,
  hit: () => ({ kind: 'ruler' }),
  hand: PlayheadHand,
};
