import { Injectable, inject } from '@angular/core';
import { greatestOf, leastOf, scaleKeys, spanOf } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { chosenFrames } from '../../plot/chosen';
import { frameAt, xOf, type Plot } from '../../plot/plot';
import type { Row } from '../../plot/rows';
import { Snapper } from '../../plot/snapper';
import { channelsOf, type Draggable, type Hand, type HitScene } from './draggable';

interface RunEnd {
  readonly kind: 'run';
  readonly end: 'start' | 'end';
  readonly frame: number;
}
/** How far beside the outer chosen pegs the ends of a run stand, and how near the pointer must be. */
const AWAY = 13;
const REACH = 5;

/** The end of a run of chosen keys of a row: dragged, all of them are scaled in time about the other end. */
@Injectable({ providedIn: 'root' })
export class RunHand implements Hand<RunEnd> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);

  begin({ bench, program }: HitScene, down: PointerEvent, { end, frame: grabbed }: RunEnd): Drag {
    const { keys } = bench;
    const frames = keys.map(({ frame }) => frame);
    const about = end === 'end' ? leastOf(frames) : greatestOf(frames);
    const targets = this.snapper.targets(keys);
    const offset = frameAt(this.model.plot(), down.offsetX) - grabbed;
    const label = `Scale ${keys.length} keys in time`;
    return {
      move: (event) => {
        if (this.studio.readOnly()) return;
        const to = this.snapper.snap(frameAt(this.model.plot(), event.offsetX) - offset, targets, event);
        const factor = Math.max(0.02, (to - about) / (grabbed - about));
        const text = `f ${shownFrame(grabbed)} → ${shownFrame(about + (grabbed - about) * factor)} · times ${factor.toFixed(2)}`;
        const chip = { x: event.offsetX, y: event.offsetY, text };
        this.model.showDrag(
          { label, edit: (now) => scaleKeys(now, keys, about, factor, bench.time.slopes) },
          { chip, box: null, old: program, channels: channelsOf(keys) },
        );
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}

/** The outer ends of the chosen keys of a row, just beside its first and last one: where they stand in pixels. */
export function runEnds(
  plot: Plot,
  row: Row,
  chosen: ReadonlySet<number> | undefined,
): { readonly start: number; readonly end: number } | null {
  if (row.kind !== 'channel' || !chosen || chosen.size < 2) return null;
  const { first, last } = spanOf(chosen);
  return { start: xOf(plot, first) - AWAY, end: xOf(plot, last) + AWAY };
}

export const run: Draggable<RunEnd> = {
  kind: 'run',
  areas: ['ticks'],
  cursor: 'col-resize',
  hit: ({ plot, bench }, { x, row }) => {
    if (!row) return null;
    const chosen = chosenFrames(bench.keys, row.id);
    const ends = runEnds(plot, row, chosen);
    if (!ends) return null;
    const { first, last } = spanOf(chosen);
    if (Math.abs(x - ends.end) <= REACH) return { kind: 'run', end: 'end', frame: last };
    return Math.abs(x - ends.start) <= REACH ? { kind: 'run', end: 'start', frame: first } : null;
  },
  hand: RunHand,
};
