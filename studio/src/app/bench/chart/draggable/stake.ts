import { Injectable, inject } from '@angular/core';
import type { TimeKnot } from '@kaizen/core';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { frameAt, xOf } from '../../plot/plot';
import { Snapper } from '../../plot/snapper';
import { TimeTools } from '../../timing/time-tools';
import type { Draggable, Hand, HitScene } from './draggable';

interface StakeHeld {
  readonly kind: 'stake';
  readonly stake: TimeKnot;
}
const REACH = 7;

@Injectable({ providedIn: 'root' })
export class StakeHand implements Hand<StakeHeld> {
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);
  private readonly time = inject(TimeTools);

  begin(_: HitScene, down: PointerEvent, { stake }: StakeHeld): Drag {
    const targets = this.snapper.targets();
    const offset = frameAt(this.model.plot(), down.offsetX) - stake.to;
    return {
      move: (event) => {
        const to = this.snapper.snap(frameAt(this.model.plot(), event.offsetX) - offset, targets, event);
        this.time.moveStake(stake, to);
      },
      end: () => undefined,
      cancel: () => this.time.moveStake(stake, stake.to),
    };
  }
}

export const stake: Draggable<StakeHeld> = {
  kind: 'stake',
  areas: ['ruler'],
  cursor: 'col-resize',
  duringStakes: true,
  hit: ({ plot, bench }, { x }) => {
    const found = bench.stakes.find(({ to }) => Math.abs(xOf(plot, to) - x) <= REACH);
    return found ? { kind: 'stake', stake: found } : null;
  },
  hand: StakeHand,
};
