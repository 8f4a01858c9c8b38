import { Injectable, inject } from '@angular/core';
import { Studio } from '../../../state/studio';
import type { Drag } from '../../../ui/follow-drag';
import type { Strip } from '../../plot/plot';
import type { Draggable, Hand, HitScene } from './draggable';
import { SelectByBox } from './select-by-box';

interface Ground {
  readonly kind: 'ground';
  readonly strip: Strip | null;
}

/** Where nothing lies: a drag chooses the keys in a box, a click lets go of those that are chosen. */
@Injectable({ providedIn: 'root' })
export class GroundHand implements Hand<Ground> {
  private readonly studio = inject(Studio);
  private readonly boxes = inject(SelectByBox);

  begin(scene: HitScene, down: PointerEvent): Drag {
    return this.boxes.begin(scene, down, () => {
      if (!down.ctrlKey && !down.metaKey) this.studio.pick({ keys: [], handles: [] });
    });
  }
}

export const ground: Draggable<Ground> = {
  kind: 'ground',
  areas: ['ticks', 'pegs', 'values', 'rates'],
  cursor: 'default',
  hit: (_, { area, strip }) => ({
    kind: 'ground',
    strip: area === 'values' || area === 'rates' ? strip : null,
  }),
  hand: GroundHand,
};
