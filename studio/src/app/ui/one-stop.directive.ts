import { FocusKeyManager } from '@angular/cdk/a11y';
import { hasModifierKey } from '@angular/cdk/keycodes';
import { DestroyRef, Directive, ElementRef, inject, type AfterViewInit } from '@angular/core';

/** What can be reached inside a group by the arrow keys. */
const ITEMS = 'button:not(:disabled)';

/**
 * A row or a grid of buttons that is one Tab stop: the arrow keys go from button to button, Home and End to the first and last. What is
 * typed in fields is left alone.
 */
@Directive({
  selector: '[kzOneStop]',
  host: { '(keydown)': 'onKey($event)', '(focusin)': 'onFocus($event)' },
})
export class OneStopDirective implements AfterViewInit {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly destroyed = inject(DestroyRef);
  /** The button that Tab comes to. */
  private current: HTMLElement | null = null;

  ngAfterViewInit(): void {
    const observer = new MutationObserver(() => this.settle());
    observer.observe(this.host, {
      childList: true,
      subtree: true,
      attributes: true,
      attributeFilter: ['disabled', 'aria-pressed', 'aria-checked'],
    });
    this.destroyed.onDestroy(() => observer.disconnect());
    this.settle();
  }

  private items(): readonly HTMLElement[] {
    return [...this.host.querySelectorAll<HTMLElement>(ITEMS)];
  }

  /** One of the buttons can be reached by Tab: the one last used, else the one that is chosen, else the first. */
  private settle(): void {
    const items = this.items();
    const hasFocus = items.find((item) => item === document.activeElement);
    const known = this.current && items.includes(this.current) ? this.current : undefined;
    const chosen = items.find(
      (item) => item.getAttribute('aria-pressed') === 'true' || item.getAttribute('aria-checked') === 'true',
    );
    const stop = hasFocus ?? known ?? chosen ?? items[0];
    for (const item of items) {
      const index = item === stop ? 0 : -1;
      if (item.tabIndex !== index) item.tabIndex = index;
    }
  }

  onFocus(event: FocusEvent): void {
    this.current = event.target as HTMLElement;
    this.settle();
  }

  onKey(event: KeyboardEvent): void {
    const items = this.items();
    const index = items.indexOf(event.target as HTMLElement);
    if (index < 0) return;
    const way = { ArrowDown: 1, ArrowUp: -1 }[event.key] as 1 | -1 | undefined;
    const below = way && !hasModifierKey(event) ? inAnotherRow(items, index, way) : undefined;
    if (below) {
      event.preventDefault();
      below.focus();
    } else {
      const keys = new FocusKeyManager(items.map((item) => ({ focus: () => item.focus() })))
        .withVerticalOrientation()
        .withHorizontalOrientation('ltr')
        .withHomeAndEnd()
        .withWrap();
      keys.updateActiveItem(index);
      keys.onKeydown(event);
    }
    if (event.defaultPrevented) event.stopPropagation();
  }
}

/** The nearest button of another row of the grid: below, or above. */
function inAnotherRow(items: readonly HTMLElement[], index: number, way: 1 | -1): HTMLElement | undefined {
  const boxes = items.map((item) => item.getBoundingClientRect());
  const here = boxes[index]!;
  const middle = ({ left, right }: DOMRect) => (left + right) / 2;
  const isBeyond = (box: DOMRect) => (way === 1 ? box.top >= here.bottom - 2 : box.bottom <= here.top + 2);
  const distance = (box: DOMRect) => Math.abs(box.top - here.top) * 4 + Math.abs(middle(box) - middle(here));
  const beyond = items.map((_, i) => i).filter((i) => isBeyond(boxes[i]!));
  beyond.sort((a, b) => distance(boxes[a]!) - distance(boxes[b]!));
  return beyond.length > 0 ? items[beyond[0]!] : undefined;
}
