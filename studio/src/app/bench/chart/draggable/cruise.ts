import { Injectable, inject } from '@angular/core';
import { reshapeCruise, secondsPerFrame, cruises, type Cruise } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import type { Drag } from '../../../ui/follow-drag';
import { frameAt, yOf, type Strip } from '../../plot/plot';
import type { Draggable, Hand, HitScene } from './draggable';
import { Reshape, risenBy, speedTold } from './reshape';
import { openCurves } from './speed-strip';

interface CruiseHeld {
  readonly kind: 'cruise';
  readonly cruise: Cruise;
  readonly strip: Strip;
}
const REACH = 6;

/** The even stretch of a trapezoid or s-curve in the strip of speed, lifted or lowered. */
@Injectable({ providedIn: 'root' })
export class CruiseHand implements Hand<CruiseHeld> {
  private readonly studio = inject(Studio);
  private readonly reshape = inject(Reshape);

  begin(scene: HitScene, down: PointerEvent, { cruise, strip }: CruiseHeld): Drag {
    this.studio.pick({ keys: [cruise.ref], handles: [] });
    this.studio.set({ sheet: 'key' });
    const { lock } = scene.bench.shaping;
    const seconds = secondsPerFrame(scene.project.rate);
    return this.reshape.begin(scene, cruise.ref.channel, 'Reshape a cruise', (event) => {
      const by = risenBy(strip, down, event);
      return {
        edit: (now) => reshapeCruise(now, cruise.ref, (cruise.speed + by) * seconds, lock),
        text: speedTold(cruise.speed, by, strip.told, lock),
      };
    });
  }
}

export const cruise: Draggable<CruiseHeld> = {
  kind: 'cruise',
  areas: ['rates'],
  cursor: 'ns-resize',
  hit: ({ plot, project }, { strip, x, y }) => {
    const frame = frameAt(plot, x);
    const found = openCurves(project, strip)
      .flatMap((curve) => cruises(project, curve))
      .find(({ from, to, speed }) => frame > from && frame < to && Math.abs(yOf(strip!, speed) - y) <= REACH);
    return found ? { kind: 'cruise', cruise: found, strip: strip! } : null;
  },
  hand: CruiseHand,
};
