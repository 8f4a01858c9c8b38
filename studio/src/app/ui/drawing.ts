import { DestroyRef, inject } from '@angular/core';
import { createWatch } from '@angular/core/primitives/signals';
import { SHOWN } from './in-turn.directive';
import { soon } from './soon';

/** Drawings that are done within so many milliseconds are one task. */
const TASK = 4;
const waiting = new Set<() => void>();
let isAsked = false;

function ask(draw: () => void): void {
  waiting.add(draw);
  if (isAsked) return;
  isAsked = true;
  // Behind what the page itself asks for, which goes by the same race, so that what is drawn is what the page then says.
  queueMicrotask(() => {
    const first = () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
      drawSome();
    };
    const frame = requestAnimationFrame(first);
    const timer = setTimeout(first);
  });
}

function drawSome(): void {
  const end = performance.now() + TASK;
  try {
    for (const draw of waiting) {
      waiting.delete(draw);
      draw();
      if (performance.now() > end) break;
    }
  } finally {
    isAsked = waiting.size > 0;
    if (isAsked) soon(drawSome);
  }
}

/**
 * Draws soon, and again soon after a signal changed that the drawing read; not before its part of the page is shown. An effect would
 * draw while the page is brought up to date, in the same task. To be called where things are injected.
 */
export function drawing(draw: () => void): void {
  const shown = inject(SHOWN);
  const run = () => watch.run();
  const watch = createWatch(
    () => {
      if (shown()) draw();
    },
    () => ask(run),
    true,
  );
  watch.notify();
  inject(DestroyRef).onDestroy(() => {
    waiting.delete(run);
    watch.destroy();
  });
}
