import { Injectable, signal } from '@angular/core';

/** The chip beside the pointer while a grip is dragged. */
@Injectable({ providedIn: 'root' })
export class GripChip {
  readonly shown = signal<{ readonly x: number; readonly y: number; readonly text: string } | null>(null);

  show(x: number, y: number, text: string): void {
    this.shown.set({ x, y, text });
  }
  hide(): void {
    this.shown.set(null);
  }
}
