/**
 * Runs something in a task of its own, as soon as the page gets to it. A timer that was set within a timer would wait four milliseconds
 * more.
 */
export function soon(run: () => void): void {
  const { scheduler } = globalThis as { scheduler?: { postTask?: (run: () => void) => Promise<unknown> } };
  if (!scheduler?.postTask) setTimeout(run);
  else scheduler.postTask(run).catch(reportError);
}
