import type { CdkVirtualScrollViewport } from '@angular/cdk/scrolling';

/**
 * Brings a row of a scrolled list into sight and gives an element of it the keyboard: at once where it is drawn already, so that
 * keys pressed fast land where they were meant to, else with the frame that draws it.
 */
export function focusRow(
  viewport: CdkVirtualScrollViewport,
  index: number,
  rowHeight: number,
  id: string,
): void {
  const top = index * rowHeight;
  const offset = viewport.measureScrollOffset();
  const below = top + rowHeight - viewport.getViewportSize();
  if (top < offset) viewport.scrollToOffset(top);
  else if (below > offset) viewport.scrollToOffset(below);
  const element = document.getElementById(id);
  if (element) element.focus();
  else requestAnimationFrame(() => document.getElementById(id)?.focus());
}
