import { ChangeDetectionStrategy, Component, DestroyRef, inject, ViewContainerRef } from '@angular/core';
import { MadeAhead } from '../open/made-ahead';
import { BenchComponent } from './bench.component';

/** The Bench's address: shows the Bench that was made ahead, or makes one. */
@Component({
  selector: 'kz-bench-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
  styles: ':host { display: none; }',
})
export class BenchPageComponent {
  constructor() {
    const place = inject(ViewContainerRef);
    const made = inject(MadeAhead).take();
    if (made) inject(DestroyRef).onDestroy(() => made.destroy());
    const bench = made ?? place.createComponent(BenchComponent);
    bench.instance.wake();
  }
}
