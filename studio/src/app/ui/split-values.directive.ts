import { afterEveryRender, Directive, ElementRef, inject } from '@angular/core';

/**
 * Gives the gutters of a split a value for screen readers where the package leaves it out: beside the area that takes the
 * rest.
 */
@Directive({ selector: '[kzSplitValues]' })
export class SplitValuesDirective {
  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    afterEveryRender(() => {
      for (const gutter of host.querySelectorAll('.as-split-gutter:not([aria-valuenow])')) {
        gutter.setAttribute(
          'aria-valuenow',
          String(Math.round(gutter.previousElementSibling?.clientWidth ?? 0)),
        );
      }
    });
  }
}
