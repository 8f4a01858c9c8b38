import { inject, Injectable, Injector, signal } from '@angular/core';
import { followDrag, leaving } from '../../ui/follow-drag';
import {
  VIEW_DRAGGABLES,
  type At,
  type Drawn,
  type Found,
  type ViewDrag,
  type ViewDraggable,
} from './draggable';
import type { Eye } from './grip-math';

/** What is under the pointer, and how it looks there. */
interface Over extends Found<unknown> {
  readonly cursor: string;
  begin(at: At): ViewDrag | null;
}

/** All that can be dragged in the view: drawn, found under the pointer, and taken hold of. */
@Injectable({ providedIn: 'root' })
export class ViewGrips {
  private readonly draggables: readonly ViewDraggable<unknown>[];
  /** What the pointer is over. */
  readonly over = signal<Over | null>(null);
  /** The chip beside the pointer during a drag. */
  readonly chip = signal<(At & { readonly text: string }) | null>(null);

  constructor() {
    const injector = inject(Injector);
    this.draggables = VIEW_DRAGGABLES.map((each) => injector.get(each));
  }

  /** What is drawn over the view, the first of the list last. */
  draw(eye: Eye): readonly Drawn<unknown>[] {
    return this.draggables.toReversed().flatMap((each) => each.draw(eye));
  }

  hit(eye: Eye, at: At): Over | null {
    for (const each of this.draggables) {
      const found = each.hit(eye, at);
      if (found)
        return { ...found, cursor: each.cursor, begin: (from) => each.begin(eye, from, found.target) };
    }
    return null;
  }

  /** Takes hold of what lies under a press, if anything does; `left` is told when it is let go. */
  grab(down: PointerEvent, corner: DOMRect, eye: Eye, left: () => void): boolean {
    const place = (event: PointerEvent): At => ({
      x: event.clientX - corner.left,
      y: event.clientY - corner.top,
    });
    const over = this.hit(eye, place(down));
    const drag = over?.begin(place(down));
    if (!over || !drag) return false;
    this.over.set(over);
    const held = {
      move: (event: PointerEvent) => {
        const at = place(event);
        this.chip.set({ ...at, text: drag.move(at) });
      },
      end: (event: PointerEvent) => drag.end(place(event)),
      cancel: () => drag.cancel(),
    };
    followDrag(
      leaving(held, () => {
        this.chip.set(null);
        left();
      }),
    );
    return true;
  }
}
