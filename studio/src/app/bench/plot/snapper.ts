import { Injectable, inject } from '@angular/core';
import type { KeyRef } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { ChartModel } from './chart-model';
import { snapFrame } from './snap';

/** What frames snap to while something is dragged; with Ctrl held they do not. */
@Injectable({ providedIn: 'root' })
export class Snapper {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  /** The frames that draw what is dragged to them: of markers and, but for the keys that are dragged, of the keys in the rows. */
  targets(dragged: readonly KeyRef[] = []): readonly number[] {
    const { snap } = this.studio.bench();
    const frames = new Set<number>();
    if (snap.markers) {
      for (const { frame, end } of this.studio.project()?.markers ?? []) {
        frames.add(frame);
        if (end !== null) frames.add(end);
      }
    }
    if (snap.keys) {
      const channels = new Set(dragged.map(({ channel }) => channel));
      for (const row of this.model.rows()) {
        if (row.kind !== 'channel' || channels.has(row.id)) continue;
        for (const { frame } of row.curve?.keys ?? []) frames.add(frame);
      }
    }
    return [...frames];
  }

  snap(frame: number, targets: readonly number[], event: { readonly ctrlKey: boolean } | null): number {
    const { first, last } = this.model.axis();
    const framesPerPixel = (last - first) / this.model.size().width;
    if (event?.ctrlKey) return snapFrame(frame, { whole: false, frames: [], framesPerPixel });
    return snapFrame(frame, { whole: this.studio.bench().wholeFrames, frames: targets, framesPerPixel });
  }
}
