import { Injectable, inject } from '@angular/core';
import {
  curveOf,
  reshapeCruise,
  reshapeKeySpeed,
  reshapeRamp,
  secondsPerFrame,
  type Edit,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownNumber, signedNumber } from '../../ui/amount';
import type { Drag } from '../plot/drag';
import { ChartModel } from '../plot/chart-model';
import type { HitScene } from './target';
import { frameAt, valueAt, type Strip } from '../plot/plot';
import type { Cruise, SpeedMark } from '../plot/rates/speed-marks';

/** Dragging in the strip of speed: a key's side, a ramp's end or a cruise, with the places kept or the area free. */
@Injectable({ providedIn: 'root' })
export class SpeedDrags {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  mark(scene: HitScene, down: PointerEvent, mark: SpeedMark, strip: Strip): Drag {
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
    return this.drag(scene, mark.ref.channel, 'Reshape the speed at a key', down, (event) => {
      const by = valueAt(strip, strip.top + event.clientY - down.clientY) - valueAt(strip, strip.top);
      return {
        edit: (from) => reshapeKeySpeed(from, mark.ref, mark.side, by * seconds, lock),
        text: told(mark.speed, by, strip.told, lock),
      };
    });
  }

  private ramp(scene: HitScene, down: PointerEvent, mark: SpeedMark & { readonly kind: 'ramp' }): Drag {
    const { lock } = scene.bench.shaping;
    const plot = this.model.plot();
    const keys = curveOf(scene.project, mark.ref.channel)?.keys;
    const index = keys?.findIndex(({ frame }) => frame === mark.ref.frame) ?? -1;
    const [from, to] = [keys?.[index]?.frame ?? 0, keys?.[index + 1]?.frame ?? 1];
    return this.drag(scene, mark.ref.channel, 'Reshape a ramp', down, (event) => {
      const frame = mark.frame + frameAt(plot, event.clientX - down.clientX) - plot.axis.first;
      const share = mark.which === 'accelerate' ? (frame - from) / (to - from) : (to - frame) / (to - from);
      const kept = Math.min(1, Math.max(0, share));
      return {
        edit: (from) => reshapeRamp(from, mark.ref, mark.which, share, lock),
        text: `${mark.which} over ${shownNumber(kept, 3)} of the leg${lockWords(lock)}`,
      };
    });
  }

  cruise(scene: HitScene, down: PointerEvent, cruise: Cruise, strip: Strip): Drag {
    this.studio.pick({ keys: [cruise.ref], handles: [] });
    this.studio.set({ sheet: 'key' });
    const { lock } = scene.bench.shaping;
    const seconds = secondsPerFrame(scene.project.rate);
    return this.drag(scene, cruise.ref.channel, 'Reshape a cruise', down, (event) => {
      const by = valueAt(strip, strip.top + event.clientY - down.clientY) - valueAt(strip, strip.top);
      return {
        edit: (from) => reshapeCruise(from, cruise.ref, (cruise.speed + by) * seconds, lock),
        text: told(cruise.speed, by, strip.told, lock),
      };
    });
  }

  private drag(
    scene: HitScene,
    channel: string,
    label: string,
    down: PointerEvent,
    made: (event: PointerEvent) => { readonly edit: Edit; readonly text: string },
  ): Drag {
    return {
      move: (event) => {
        if (this.studio.readOnly()) return;
        const { edit, text } = made(event);
        const chip = { x: event.offsetX, y: event.offsetY, text };
        this.model.showDrag({ label, edit }, { chip, box: null, old: scene.program, channels: [channel] });
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}

function told(was: number, by: number, unit: string, lock: 'places' | 'free'): string {
  return `speed ${shownNumber(was, 2)} → ${shownNumber(was + by, 2)} ${unit} (${signedNumber(by, 2)})${lockWords(lock)}`;
}

function lockWords(lock: 'places' | 'free'): string {
  return lock === 'places' ? ' · places stay' : ' · places move';
}
