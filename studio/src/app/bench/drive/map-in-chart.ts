import { computed, Injectable, inject, signal } from '@angular/core';
import type { MapDriver } from '@kaizen/core';
import { Stage } from '../stage/stage';

/** The map whose curve takes the place of the time curves in the Chart, with its input as the axis. */
@Injectable({ providedIn: 'root' })
export class MapInChart {
  private readonly stage = inject(Stage);
  /** The driver's id; null: the Chart shows time. */
  readonly id = signal<string | null>(null);
  readonly driver = computed((): MapDriver | null => {
    const id = this.id();
    const driver = id === null ? undefined : this.stage.shown()?.drivers.find((each) => each.id === id);
    return driver?.kind === 'map' ? driver : null;
  });
}
