import type { Project } from '@kaizen/core';
import { type ChartGestures } from '../bench/chart/chart-gestures';
import { ChartModel } from '../bench/plot/chart-model';
import { CommandRegistry } from '../commands/registry';
import { fakes } from './fake-studio';

/** A project on a Chart of 1000 pixels for 100 frames, with all that takes hold of it, and a canvas that is pressed. */
export function chartHands(project: Project, height: number) {
  const made = fakes(project, [
    { provide: CommandRegistry, useValue: { spaceHeld: () => false, useSpace: () => undefined } },
  ]);
  const model = made.injector.get(ChartModel);
  model.size.set({ width: 1000, height });
  model.axis.set({ first: 0, last: 100 });
  return { ...made, model };
}

/** A pointer event at a place of the canvas. */
export function pointerAt(x: number, y: number, more: object = {}): PointerEvent {
  const held = { ctrlKey: false, shiftKey: false, altKey: false, metaKey: false };
  return { offsetX: x, offsetY: y, clientX: x, clientY: y, ...held, ...more } as PointerEvent;
}

/** Presses on the Chart with the window's listeners remembered, and gives the moves and the release. */
export function pressChart(gestures: ChartGestures, down: PointerEvent) {
  const listeners = new Map<string, (event: PointerEvent) => void>();
  const canvas = { focus: () => undefined, setPointerCapture: () => undefined } as unknown as HTMLElement;
  Object.assign(globalThis, {
    addEventListener: (
      name: string,
      listener: (event: PointerEvent) => void,
      { signal }: { readonly signal: AbortSignal },
    ) => {
      listeners.set(name, listener);
      signal.addEventListener('abort', () => listeners.delete(name));
    },
  });
  gestures.press(Object.assign(down, { button: 0, preventDefault: () => undefined }), canvas);
  return {
    move: (event: PointerEvent) => listeners.get('pointermove')?.(event),
    up: (event: PointerEvent) => listeners.get('pointerup')?.(event),
    leave: () => listeners.get('blur')?.({} as PointerEvent),
    held: () => listeners.size > 0,
  };
}
