import { Injectable, inject } from '@angular/core';
import { changeSound, shiftFrame, type Sound } from '@kaizen/core';
import type { Drag } from '../../../ui/follow-drag';
import { MARKER_ROW, RULER, xOf } from '../../plot/plot';
import { RulerTools } from '../../ruler/ruler-tools';
import type { Draggable, Hand, HitScene } from './draggable';
import { Slide } from './slide';

interface SoundHeld {
  readonly kind: 'sound';
  readonly sound: Sound;
}

@Injectable({ providedIn: 'root' })
export class SoundHand implements Hand<SoundHeld> {
  private readonly slide = inject(Slide);
  private readonly ruler = inject(RulerTools);

  begin(_: HitScene, down: PointerEvent, { sound }: SoundHeld): Drag {
    this.ruler.pick(sound.id);
    return this.slide.begin(down, sound.start, 'Move a sound', (project, by) =>
      changeSound(project, sound.id, { start: shiftFrame(sound.start, by) }),
    );
  }
}

export const sound: Draggable<SoundHeld> = {
  kind: 'sound',
  areas: ['marks'],
  cursor: 'grab',
  hit: ({ plot, project }, { x, y }) => {
    if (project.markers.length > 0 && y < RULER + MARKER_ROW) return null;
    const found = project.sounds.findLast((each) => x >= xOf(plot, each.start) - 3);
    return found ? { kind: 'sound', sound: found } : null;
  },
  hand: SoundHand,
};
