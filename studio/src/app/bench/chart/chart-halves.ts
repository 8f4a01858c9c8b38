import { Injectable, inject, signal } from '@angular/core';
import type { Density } from '../../state/bench';
import { Studio } from '../../state/studio';
import { Panels } from '../stage/panels';
import { ChartModel } from '../plot/chart-model';

/** The Chart as one, or split in two halves: which of them a command means. */
@Injectable({ providedIn: 'root' })
export class ChartHalves {
  private readonly studio = inject(Studio);
  private readonly panels = inject(Panels);
  private readonly upper = inject(ChartModel);
  /** The lower half’s model, while the Chart is split. */
  readonly lower = signal<ChartModel | null>(null);

  /** The half that the pointer is in. */
  meant(): ChartModel {
    return (this.panels.pointerIn === 'lower' ? this.lower() : null) ?? this.upper;
  }

  setDensity(density: Density, half = this.meant().half): void {
    const { split } = this.studio.bench();
    this.studio.set(half === 'lower' ? { split: { ...split, density } } : { density });
  }

  toggle(): void {
    const { split } = this.studio.bench();
    this.studio.set({ split: { ...split, on: !split.on } });
  }
}
