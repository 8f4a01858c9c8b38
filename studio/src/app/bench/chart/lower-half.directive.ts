import { Directive, inject, type OnDestroy } from '@angular/core';
import { ChartModel } from '../plot/chart-model';
import { CHART_HALF } from '../plot/chart-half';
import { Snapper } from '../plot/snapper';
import { ChartGestures } from './chart-gestures';
import { ChartHalves } from './chart-halves';
import { CHART_HANDS } from './draggable';

/** Makes a Chart the lower half of a split one: with scales, rows and a density of its own, over the same time. */
@Directive({
  selector: '[kzLowerHalf]',
  providers: [{ provide: CHART_HALF, useValue: 'lower' }, ChartModel, ChartGestures, Snapper, ...CHART_HANDS],
})
export class LowerHalfDirective implements OnDestroy {
  private readonly halves = inject(ChartHalves);

  constructor() {
    this.halves.lower.set(inject(ChartModel));
  }

  ngOnDestroy(): void {
    this.halves.lower.set(null);
  }
}
