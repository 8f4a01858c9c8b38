/** One drag of the pointer from its press on: what follows moves, the release, and giving it up. */
export interface Drag {
  move(event: PointerEvent): void;
  end(event: PointerEvent): void;
  cancel(): void;
}

/** A drag before whose end, whichever that is, something more is done. */
export function leaving(drag: Drag, before: () => void): Drag {
  const after = (last: () => void) => {
    before();
    last();
  };
  return {
    move: (event) => drag.move(event),
    end: (event) => after(() => drag.end(event)),
    cancel: () => after(() => drag.cancel()),
  };
}

/**
 * Follows the pointer from a press on. A drag ends once: at the release, or given up by Esc, by a pointer that is lost, or because the
 * window is left; that Esc means nothing else. With an element, all events of the pointer come as if over it.
 */
export function followDrag(
  drag: Drag,
  held?: { readonly element: Element; readonly pointerId: number },
): void {
  const stop = new AbortController();
  const on = <K extends keyof WindowEventMap>(
    name: K,
    listener: (event: WindowEventMap[K]) => void,
    capture = false,
  ) => addEventListener(name, listener, { signal: stop.signal, capture });
  const finish = (last: () => void) => {
    stop.abort();
    last();
  };
  held?.element.setPointerCapture(held.pointerId);
  on('pointermove', (event) => drag.move(event));
  on('pointerup', (event) => finish(() => drag.end(event)));
  on('pointercancel', () => finish(() => drag.cancel()));
  on('blur', () => finish(() => drag.cancel()));
  on(
    'keydown',
    (event) => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      event.preventDefault();
      finish(() => drag.cancel());
    },
    true,
  );
}
