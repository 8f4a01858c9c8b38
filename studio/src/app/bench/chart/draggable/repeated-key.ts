import { Injectable, inject } from '@angular/core';
import { curveOf, repeatedKeys, type KeyRef } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { xOf, yOf } from '../../plot/plot';
import { panAxis } from '../../plot/time-axis';
import { near, type Draggable, type Hand, type HitScene } from './draggable';
import { SelectByBox } from './select-by-box';

interface RepeatedHeld {
  readonly kind: 'repeated';
  readonly ref: KeyRef;
}

/** A key’s repetition outside the keys: a click leads to the key itself, and brings it into sight. */
@Injectable({ providedIn: 'root' })
export class RepeatedKeyHand implements Hand<RepeatedHeld> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly boxes = inject(SelectByBox);

  begin(scene: HitScene, down: PointerEvent, { ref }: RepeatedHeld): Drag {
    return this.boxes.begin(scene, down, () => {
      this.studio.pick({ keys: [ref], handles: [] });
      this.studio.set({ sheet: 'key' });
      const { axis } = this.model.plot();
      if (ref.frame < axis.first || ref.frame > axis.last)
        this.model.axis.set(panAxis(axis, ref.frame - (axis.first + axis.last) / 2));
    });
  }
}

export const repeatedKey: Draggable<RepeatedHeld> = {
  kind: 'repeated',
  areas: ['values'],
  cursor: 'pointer',
  hit: ({ plot, project }, { strip, x, y }) => {
    for (const channel of strip?.channels ?? []) {
      const curve = curveOf(project, channel);
      const ghost =
        curve &&
        repeatedKeys(curve, plot.axis.first, plot.axis.last).find(({ frame, value }) =>
          near(xOf(plot, frame) - x, yOf(strip!, value) - y),
        );
      if (ghost) return { kind: 'repeated', ref: { channel, frame: ghost.of } };
    }
    return null;
  },
  hand: RepeatedKeyHand,
};
