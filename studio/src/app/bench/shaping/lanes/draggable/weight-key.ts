import { inject, Injectable } from '@angular/core';
import { mapKeyPlaces, type KeyRef } from '@kaizen/core';
import { Studio } from '../../../../state/studio';
import { shownFrame, shownNumber } from '../../../../ui/amount';
import type { Drag } from '../../../../ui/follow-drag';
import { ChartModel } from '../../../plot/chart-model';
import { frameAt, xOf } from '../../../plot/plot';
import { Snapper } from '../../../plot/snapper';
import { weightAt, weightY } from '../draw-lanes';
import type { LaneShown } from '../lanes';
import { REACH, type LaneDraggable } from './draggable';
import { LaneDrag } from './lane-drag';

/** A key of a lane's weight: dragged in time and weight, with the chosen ones of the same weight. */
@Injectable({ providedIn: 'root' })
export class WeightKey implements LaneDraggable<KeyRef> {
  readonly cursor = 'grab';
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);
  private readonly drag = inject(LaneDrag);

  hit(lane: LaneShown, x: number, y: number): KeyRef | null {
    const { weight } = lane.treatment;
    if (typeof weight === 'number') return null;
    const plot = this.model.plot();
    const key = weight.keys.find(
      ({ frame, value }) => Math.hypot(xOf(plot, frame) - x, weightY(lane, value) - y) <= REACH,
    );
    return key ? { channel: lane.weight, frame: key.frame } : null;
  }

  begin(lane: LaneShown, down: PointerEvent, grabbed: KeyRef): Drag {
    const { keys } = this.studio.bench();
    const isChosen = keys.some(({ channel, frame }) => channel === lane.weight && frame === grabbed.frame);
    const moving = isChosen ? keys.filter(({ channel }) => channel === lane.weight) : [grabbed];
    this.studio.pick({ keys: moving, handles: [] });
    const targets = this.snapper.targets(moving);
    return this.drag.of('Move the weight', (event) => {
      const raw = frameAt(this.model.plot(), event.offsetX) - frameAt(this.model.plot(), down.offsetX);
      const frames = this.snapper.snap(grabbed.frame + raw, targets, event) - grabbed.frame;
      const rise = weightAt(lane, event.offsetY) - weightAt(lane, down.offsetY);
      return {
        edit: (now) =>
          mapKeyPlaces(now, moving, ({ frame, value }) => ({
            frame: frame + frames,
            value: Math.min(1, Math.max(0, value + rise)),
          })),
        text: `f ${shownFrame(grabbed.frame + frames)} · ${rise >= 0 ? '+' : '−'}${shownNumber(Math.abs(rise), 2)}`,
      };
    });
  }
}
