import { Injectable, inject, signal } from '@angular/core';
import { Settings } from '../../ui/settings';

type Sizes = Readonly<Record<string, readonly number[]>>;

/** Sizes of the panels that are split by hand, remembered in this browser; and which of them the pointer is in. */
@Injectable({ providedIn: 'root' })
export class Panels {
  private readonly settings = inject(Settings);
  /** Which panel the pointer is in: fitting means that one. */
  pointerIn: 'view' | 'chart' | 'lower' = 'chart';
  private readonly sizes = signal<Sizes>({});
  /** The panel that has all the room; null: each has its own. */
  readonly full = signal<'view' | 'chart' | null>(null);

  constructor() {
    void this.settings.setting<Sizes>('panels').then((sizes) => sizes && this.sizes.set(sizes));
  }

  toggleFull(): void {
    this.full.update((full) => (full !== null ? null : this.pointerIn === 'view' ? 'view' : 'chart'));
  }

  /** The size of one area of a split, in pixels or as a share. */
  size(split: string, area: number, first: number): number {
    return this.sizes()[split]?.[area] ?? first;
  }

  keep(split: string, sizes: readonly (number | string)[]): void {
    const numbers = sizes.map((size) => (typeof size === 'number' ? size : 0));
    this.sizes.update((all) => ({ ...all, [split]: numbers }));
    void this.settings.putSetting('panels', this.sizes());
  }
}
