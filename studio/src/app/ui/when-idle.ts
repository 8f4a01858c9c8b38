/** Calls back when the page has nothing else to do, or after some milliseconds at the latest. */
export function whenIdle(run: () => void, timeout = 5000): void {
  if (typeof requestIdleCallback === 'function') requestIdleCallback(run, { timeout });
  else setTimeout(run, Math.min(timeout, 500));
}
