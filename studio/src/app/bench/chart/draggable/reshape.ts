import { Injectable, inject } from '@angular/core';
import type { Edit } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownNumber, signedNumber } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { valueAt, type Strip } from '../../plot/plot';
import type { HitScene } from './draggable';

/** A drag in the strip of speed, with the places kept or the area free: what the hands there have in common. */
@Injectable({ providedIn: 'root' })
export class Reshape {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  begin(
    { program }: HitScene,
    channel: string,
    label: string,
    made: (event: PointerEvent) => { readonly edit: Edit; readonly text: string },
  ): Drag {
    return {
      move: (event) => {
        if (this.studio.readOnly()) return;
        const { edit, text } = made(event);
        const chip = { x: event.offsetX, y: event.offsetY, text };
        this.model.showDrag({ label, edit }, { chip, box: null, old: program, channels: [channel] });
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}

/** How much faster or slower a drag goes in a strip, per second. */
export function risenBy(strip: Strip, down: PointerEvent, event: PointerEvent): number {
  return valueAt(strip, strip.top + event.clientY - down.clientY) - valueAt(strip, strip.top);
}

export function speedTold(was: number, by: number, unit: string, lock: 'places' | 'free'): string {
  return `speed ${shownNumber(was, 2)} → ${shownNumber(was + by, 2)} ${unit} (${signedNumber(by, 2)})${lockWords(lock)}`;
}

export function lockWords(lock: 'places' | 'free'): string {
  return lock === 'places' ? ' · places stay' : ' · places move';
}
