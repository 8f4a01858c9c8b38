import { Injectable, inject } from '@angular/core';
import { scaleBox } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame, shownNumber } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { frameAt, valueAt, type Strip } from '../../plot/plot';
import { boxGrips, keyBox, type BoxGrip } from './scale-box';
import { channelsOf, near, type Draggable, type Hand, type HitScene } from './draggable';

interface GripHeld {
  readonly kind: 'box';
  readonly grip: BoxGrip;
  readonly strip: Strip;
}
/** How small a box may be scaled in time. */
const LEAST = 0.01;

/** A grip of the box around the chosen keys: they are scaled about the other side, with Ctrl about the middle. */
@Injectable({ providedIn: 'root' })
export class BoxGripHand implements Hand<GripHeld> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  begin({ project, program, bench }: HitScene, down: PointerEvent, { grip, strip }: GripHeld): Drag {
    const { keys } = bench;
    const box = keyBox(project, strip, keys)!;
    const plot = this.model.plot();
    const label = `Scale ${keys.length} keys`;
    return {
      move: (event) => {
        if (this.studio.readOnly()) return;
        const middle = event.ctrlKey || event.metaKey;
        const by = frameAt(plot, event.clientX - down.clientX) - plot.axis.first;
        const rise = valueAt(strip, strip.top + event.clientY - down.clientY) - valueAt(strip, strip.top);
        const time = side(grip.time, box.start, box.end, by, middle);
        const value = side(grip.value, box.low, box.high, rise, middle);
        const frames = this.whole(Math.max(LEAST, time.factor), box, grip, time.about);
        const scale = {
          frame: time.about,
          frames,
          values: value.factor,
          value: (channel: string) => (strip.channels.includes(channel) ? value.about : null),
        };
        const told = [
          grip.time === 0 ? '' : `time × ${shownNumber(frames, 3)} about f ${shownFrame(time.about)}`,
          grip.value === 0
            ? ''
            : `value × ${shownNumber(value.factor, 3)} about ${shownNumber(value.about, 2)} ${strip.told}`.trimEnd(),
        ];
        const chip = { x: event.offsetX, y: event.offsetY, text: told.filter(Boolean).join(' · ') };
        this.model.showDrag(
          { label, edit: (now) => scaleBox(now, keys, scale) },
          { chip, box: null, old: program, channels: channelsOf(keys) },
        );
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }

  /** A factor that puts the dragged edge on a whole frame, while whole frames are kept. */
  private whole(
    factor: number,
    box: { readonly start: number; readonly end: number },
    grip: BoxGrip,
    about: number,
  ): number {
    if (!this.studio.bench().wholeFrames || grip.time === 0) return factor;
    const edge = grip.time === 1 ? box.end : box.start;
    const landed = Math.round(about + (edge - about) * factor);
    return landed === about ? factor : (landed - about) / (edge - about);
  }
}

/** The factor and the fixed place of one direction of a grip. */
function side(way: -1 | 0 | 1, low: number, high: number, by: number, middle: boolean) {
  if (way === 0 || high === low) return { about: low, factor: 1 };
  const about = middle ? (low + high) / 2 : way === 1 ? low : high;
  const edge = way === 1 ? high : low;
  return { about, factor: (edge + by - about) / (edge - about) };
}

export const boxGrip: Draggable<GripHeld> = {
  kind: 'box',
  areas: ['values'],
  cursor: 'nwse-resize',
  hit: ({ plot, project, bench }, { strip, x, y }) => {
    if (!bench.shaping.box || !strip) return null;
    const grip = boxGrips(plot, strip, project, bench.keys).find((each) => near(each.x - x, each.y - y));
    return grip ? { kind: 'box', grip, strip } : null;
  },
  hand: BoxGripHand,
};
