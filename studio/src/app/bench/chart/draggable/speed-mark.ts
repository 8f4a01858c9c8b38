import { Injectable, inject } from '@angular/core';
import {
  curveOf,
  reshapeKeySpeed,
  reshapeRamp,
  secondsPerFrame,
  speedMarks,
  type SpeedMark,
} from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownNumber } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { frameAt, xOf, yOf, type Strip } from '../../plot/plot';
import { near, type Draggable, type Hand, type HitScene } from './draggable';
import { lockWords, Reshape, risenBy, speedTold } from './reshape';
import { openCurves } from './speed-strip';

interface SpeedHeld {
  readonly kind: 'speed';
  readonly mark: SpeedMark;
  readonly strip: Strip;
}

/** In the strip of speed a key’s side, lifted or lowered, and the end of a ramp, moved along time. */
@Injectable({ providedIn: 'root' })
export class SpeedMarkHand implements Hand<SpeedHeld> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly reshape = inject(Reshape);

  begin(scene: HitScene, down: PointerEvent, { mark, strip }: SpeedHeld): Drag {
    this.studio.pick({ keys: [mark.ref], handles: [] });
    this.studio.set({ sheet: 'key' });
    return mark.kind === 'key' ? this.key(scene, down, mark, strip) : this.ramp(scene, down, mark);
  }

  private key(
    scene: HitScene,
    down: PointerEvent,
    mark: SpeedMark & { readonly kind: 'key' },
    strip: Strip,
  ): Drag {
    const { lock } = scene.bench.shaping;
    const seconds = secondsPerFrame(scene.project.rate);
    return this.reshape.begin(scene, mark.ref.channel, 'Reshape the speed at a key', (event) => {
      const by = risenBy(strip, down, event);
      return {
        edit: (now) => reshapeKeySpeed(now, mark.ref, mark.side, by * seconds, lock),
        text: speedTold(mark.speed, by, strip.told, lock),
      };
    });
  }

  private ramp(scene: HitScene, down: PointerEvent, mark: SpeedMark & { readonly kind: 'ramp' }): Drag {
    const { lock } = scene.bench.shaping;
    const plot = this.model.plot();
    const keys = curveOf(scene.project, mark.ref.channel)?.keys;
    const index = keys?.findIndex(({ frame }) => frame === mark.ref.frame) ?? -1;
    const [from, to] = [keys?.[index]?.frame ?? 0, keys?.[index + 1]?.frame ?? 1];
    return this.reshape.begin(scene, mark.ref.channel, 'Reshape a ramp', (event) => {
      const frame = mark.frame + frameAt(plot, event.clientX - down.clientX) - plot.axis.first;
      const share = mark.which === 'accelerate' ? (frame - from) / (to - from) : (to - frame) / (to - from);
      const kept = Math.min(1, Math.max(0, share));
      return {
        edit: (now) => reshapeRamp(now, mark.ref, mark.which, share, lock),
        text: `${mark.which} over ${shownNumber(kept, 3)} of the leg${lockWords(lock)}`,
      };
    });
  }
}

export const speedMark: Draggable<SpeedHeld> = {
  kind: 'speed',
  areas: ['rates'],
  cursor: 'grab',
  hit: ({ plot, project }, { strip, x, y }) => {
    const mark = openCurves(project, strip)
      .flatMap((curve) => speedMarks(project, curve, () => false))
      .find(({ frame, speed }) => near(xOf(plot, frame) - x, yOf(strip!, speed) - y));
    return mark ? { kind: 'speed', mark, strip: strip! } : null;
  },
  hand: SpeedMarkHand,
};
