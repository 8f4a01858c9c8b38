import { Injectable, inject } from '@angular/core';
import { greatestOf, leastOf, splitChannel } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import type { Drag } from '../../../ui/follow-drag';
import { toggled } from '../../stage/picking';
import { valueOfChannel } from '../../plot/chart-lines';
import { frameAt, yOf, type Strip } from '../../plot/plot';
import type { Draggable, Hand, HitScene } from './draggable';
import { SelectByBox } from './select-by-box';

interface CurveHeld {
  readonly kind: 'curve';
  readonly channel: string;
  readonly strip: Strip | null;
  /** All curves that lie there, this one among them. */
  readonly all?: readonly string[];
}
const REACH = 6;
/** Nearer to each other than this, in pixels, curves lie on each other. */
const ON_EACH_OTHER = 0.8;

/** A curve in the plot, or a channel’s row: a click chooses the channel, and again the next of those that lie there. */
@Injectable({ providedIn: 'root' })
export class CurveHand implements Hand<CurveHeld> {
  private readonly studio = inject(Studio);
  private readonly boxes = inject(SelectByBox);
  /** Curves that lay on each other where a curve was picked last: the next click there takes the next of them. */
  private lying: readonly string[] = [];

  begin(scene: HitScene, down: PointerEvent, target: CurveHeld): Drag {
    return this.boxes.begin(scene, down, () => this.pick(this.next(target), down.ctrlKey || down.metaKey));
  }

  private next({ channel, all }: CurveHeld): string {
    const { channels } = this.studio.bench();
    const [only] = channels;
    if (channels.length === 1 && only === channel && this.lying.includes(only))
      return this.lying[(this.lying.indexOf(only) + 1) % this.lying.length]!;
    this.lying = all && all.length > 1 ? all : [];
    return channel;
  }

  private pick(channel: string, adding: boolean): void {
    const { channels } = this.studio.bench();
    this.studio.pick({
      channels: adding ? toggled(channels, channel) : [channel],
      parts: [splitChannel(channel).part],
      ...(adding ? {} : { keys: [], handles: [] }),
    });
  }
}

function hit(
  { plot, project, program, bench }: HitScene,
  strip: Strip,
  x: number,
  y: number,
): CurveHeld | null {
  const found = strip.channels.flatMap((channel) => {
    const values = [-3, 0, 3].map((shift) =>
      yOf(strip, valueOfChannel(program, project, channel, frameAt(plot, x + shift))),
    );
    const distance =
      y >= leastOf(values) && y <= greatestOf(values)
        ? 0
        : leastOf(values.map((value) => Math.abs(value - y)));
    return distance <= REACH ? [{ channel, distance }] : [];
  });
  const least = leastOf(found.map(({ distance }) => distance));
  const all = found.filter(({ distance }) => distance <= least + ON_EACH_OTHER).map(({ channel }) => channel);
  const best = all.find((channel) => bench.channels.includes(channel)) ?? all[0];
  return best === undefined ? null : { kind: 'curve', channel: best, strip, all };
}

export const curve: Draggable<CurveHeld> = {
  kind: 'curve',
  areas: ['ticks', 'values'],
  cursor: 'pointer',
  hit: (scene, { area, row, strip, x, y }) => {
    if (area === 'ticks')
      return row?.kind === 'channel' ? { kind: 'curve', channel: row.id, strip: null } : null;
    return strip && hit(scene, strip, x, y);
  },
  hand: CurveHand,
};
