import { Injectable, inject } from '@angular/core';
import { setRange, type Project } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { NOTHING_SHOWN } from '../../plot/drag';
import { frameAt, RULER, xOf } from '../../plot/plot';
import type { Draggable, Hand, HitScene } from './draggable';
import { PlayheadHand } from './playhead';

interface RangeEnd {
  readonly kind: 'range';
  readonly end: 'start' | 'end';
}

/** The marks at the foot of the ruler where the shot's range starts and ends. */
@Injectable({ providedIn: 'root' })
export class RangeHand implements Hand<RangeEnd> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly playhead = inject(PlayheadHand);

  begin(scene: HitScene, down: PointerEvent, { end }: RangeEnd): Drag {
    if (this.studio.readOnly()) return this.playhead.begin(scene, down);
    const { range } = scene.project;
    const grabbed = range[end] - frameAt(this.model.plot(), down.offsetX);
    return {
      move: (event) => {
        const frame = Math.round(frameAt(this.model.plot(), event.offsetX) + grabbed);
        const edit = (now: Project) => setRange(now, { [end]: frame });
        const text = `${end} f ${shownFrame(range[end])} → ${shownFrame(edit(scene.project).range[end])}`;
        const chip = { x: event.offsetX, y: event.offsetY, text };
        this.model.showDrag({ label: `Move the range’s ${end}`, edit }, { ...NOTHING_SHOWN, chip });
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}

export const rangeEnd: Draggable<RangeEnd> = {
  kind: 'range',
  areas: ['ruler'],
  cursor: 'col-resize',
  hit: ({ plot, project }, { x, y }) => {
    if (y <= RULER - 12) return null;
    const start = x - xOf(plot, project.range.start);
    const end = xOf(plot, project.range.end) - x;
    if (start >= -3 && start <= 10) return { kind: 'range', end: 'start' };
    return end >= -3 && end <= 10 ? { kind: 'range', end: 'end' } : null;
  },
  hand: RangeHand,
};
