/**
 * Calls back once the page as it is now was on the screen for a frame, so that it answered once; where nothing is drawn, as in a tab
 * out of sight, soon.
 */
export function whenDrawn(run: () => void): void {
  let done = false;
  const once = () => {
    if (!done) run();
    done = true;
  };
  requestAnimationFrame(() => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(once))));
  setTimeout(once, 250);
}
