import { DestroyRef, ElementRef, inject } from '@angular/core';

/**
 * Tells the page how high the component is, in pixels, as the style variable `name`: what lies over the page keeps clear of it. Called while
 * a component is made, and told while it shows.
 */
export function tellHeight(name: `--${string}`): void {
  const element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  const { style } = document.documentElement;
  const observer = new ResizeObserver(() => {
    const { offsetHeight: height } = element;
    if (height > 0) style.setProperty(name, `${height}px`);
    else style.removeProperty(name);
  });
  observer.observe(element);
  inject(DestroyRef).onDestroy(() => {
    observer.disconnect();
    style.removeProperty(name);
  });
}
