import { Injectable, inject } from '@angular/core';
import { curveOf, type KeyRef } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import type { Drag } from '../../../ui/follow-drag';
import { sheetFor } from '../../stage/picking';
import { ChartModel } from '../../plot/chart-model';
import { CLICK_SLOP, NOTHING_SHOWN, type Box } from '../../plot/drag';
import { ROW, valueStrips, xOf, yOf } from '../../plot/plot';
import type { HitScene } from './draggable';

/** A box drawn over the Chart chooses the keys in it; a press that does not move is a click, and means what it is on. */
@Injectable({ providedIn: 'root' })
export class SelectByBox {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  begin(scene: HitScene, down: PointerEvent, click: () => void): Drag {
    const { bench } = scene;
    const adding = down.ctrlKey || down.metaKey;
    let dragged = false;
    return {
      move: (event) => {
        dragged ||= Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) > CLICK_SLOP;
        if (!dragged) return;
        const box = boxBetween(down, event);
        const inside = keysInBox(scene, box);
        const isInside = (key: KeyRef) =>
          inside.some((ref) => ref.channel === key.channel && ref.frame === key.frame);
        const kept = adding ? bench.keys.filter((key) => !isInside(key)) : [];
        this.studio.pick({ keys: [...kept, ...inside], handles: [] });
        this.model.drag.set({ ...NOTHING_SHOWN, box });
      },
      end: () => {
        this.model.stopShowing();
        const { keys, sheet } = this.studio.bench();
        if (!dragged) click();
        else if (keys.length > 0) this.studio.set({ sheet: sheetFor(sheet) });
      },
      cancel: () => {
        this.model.stopShowing();
        this.studio.pick({ keys: bench.keys, handles: bench.handles });
      },
    };
  }
}

function boxBetween(a: PointerEvent, b: PointerEvent): Box {
  return {
    left: Math.min(a.offsetX, b.offsetX),
    right: Math.max(a.offsetX, b.offsetX),
    top: Math.min(a.offsetY, b.offsetY),
    bottom: Math.max(a.offsetY, b.offsetY),
  };
}

/** The keys inside a box of the canvas. */
export function keysInBox({ plot, project, bench, rows, scrollTop }: HitScene, box: Box): KeyRef[] {
  const inside = (x: number, y: number) => x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
  if (bench.density === 'ticks') {
    const first = Math.max(0, Math.floor((box.top - plot.head + scrollTop) / ROW));
    return rows.slice(first, Math.ceil((box.bottom - plot.head + scrollTop) / ROW)).flatMap((row, i) => {
      const y = plot.head + (first + i) * ROW - scrollTop + ROW / 2;
      if (row.kind !== 'channel' || !row.curve) return [];
      return row.curve.keys.flatMap((key) =>
        inside(xOf(plot, key.frame), y) ? [{ channel: row.id, frame: key.frame }] : [],
      );
    });
  }
  return valueStrips(plot).flatMap((strip) =>
    strip.channels.flatMap((channel) =>
      (curveOf(project, channel)?.keys ?? []).flatMap((key) =>
        inside(xOf(plot, key.frame), yOf(strip, key.value)) ? [{ channel, frame: key.frame }] : [],
      ),
    ),
  );
}
