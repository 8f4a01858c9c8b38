import { Injectable, inject } from '@angular/core';
import { shiftFrame, type Project } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { CLICK_SLOP, NOTHING_SHOWN } from '../../plot/drag';
import { frameAt } from '../../plot/plot';
import { Snapper } from '../../plot/snapper';

/** What is dragged along time and nowhere else: by frames, snapped, told in a chip. */
@Injectable({ providedIn: 'root' })
export class Slide {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);

  /** A drag of what stands at the grabbed frame; `change` moves it by some frames. */
  begin(
    down: PointerEvent,
    grabbed: number,
    label: string,
    change: (project: Project, by: number) => Project,
  ): Drag {
    const targets = this.snapper.targets();
    const offset = frameAt(this.model.plot(), down.offsetX) - grabbed;
    return {
      move: (event) => {
        if (this.studio.readOnly() || Math.abs(event.clientX - down.clientX) < CLICK_SLOP) return;
        const to = this.snapper.snap(frameAt(this.model.plot(), event.offsetX) - offset, targets, event);
        const by = shiftFrame(to, -grabbed);
        const text = `f ${shownFrame(grabbed)} → ${shownFrame(to)} (${by > 0 ? '+' : ''}${shownFrame(by)})`;
        this.model.showDrag(
          { label, edit: (now) => change(now, by) },
          { ...NOTHING_SHOWN, chip: { x: event.offsetX, y: event.offsetY, text } },
        );
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}
