import { afterRenderEffect, Directive, ElementRef, inject, input } from '@angular/core';

/** Scrolls its element into sight when what it is told becomes true: what a command opened is not to be searched for. */
@Directive({ selector: '[kzInSight]' })
export class InSightDirective {
  readonly kzInSight = input.required<boolean>();

  constructor() {
    const { nativeElement } = inject<ElementRef<HTMLElement>>(ElementRef);
    afterRenderEffect(() => {
      if (this.kzInSight()) nativeElement.scrollIntoView({ block: 'nearest' });
    });
  }
}
