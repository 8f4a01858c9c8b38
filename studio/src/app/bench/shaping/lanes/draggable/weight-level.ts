import { inject, Injectable } from '@angular/core';
import { setTreatment } from '@kaizen/core';
import { shownNumber } from '../../../../ui/amount';
import type { Drag } from '../../../../ui/follow-drag';
import { weightAt, weightY } from '../draw-lanes';
import { Lanes, type LaneShown } from '../lanes';
import { REACH, type LaneDraggable } from './draggable';
import { LaneDrag } from './lane-drag';

/** The line of a weight that is one number: dragged up and down. */
@Injectable({ providedIn: 'root' })
export class WeightLevel implements LaneDraggable<number> {
  readonly cursor = 'ns-resize';
  private readonly lanes = inject(Lanes);
  private readonly drag = inject(LaneDrag);

  hit(lane: LaneShown, _: number, y: number): number | null {
    const { weight } = lane.treatment;
    return typeof weight === 'number' && Math.abs(weightY(lane, weight) - y) <= REACH ? weight : null;
  }

  begin(lane: LaneShown): Drag | null {
    const { treatment, index } = lane;
    const channel = this.lanes.curve()?.channel;
    if (channel === undefined) return null;
    return this.drag.of('Weight', (event) => {
      const weight = Math.min(1, Math.max(0, Math.round(weightAt(lane, event.offsetY) * 100) / 100));
      return {
        edit: (now) => setTreatment(now, channel, index, { ...treatment, weight }),
        text: `weight ${shownNumber(weight, 2)}`,
      };
    });
  }
}
