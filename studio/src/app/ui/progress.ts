import { Injectable, signal } from '@angular/core';

/** Work that takes longer than a moment: what it is, how far it is (0 to 1), and how it is given up. */
export interface Working {
  readonly label: string;
  readonly share: number;
  readonly cancel: (() => void) | null;
}

/** A bar shows only for work that has not ended by then, in milliseconds. */
const SHOWN_AFTER = 250;

/** The one bar that tells how far long work is. */
@Injectable({ providedIn: 'root' })
export class Progress {
  readonly current = signal<Working | null>(null);

  /** Begins a work; what is given back tells how far it is, and that it has ended. */
  begin(
    label: string,
    cancel: (() => void) | null = null,
  ): { readonly at: (share: number) => void; readonly end: () => void } {
    let working: Working = { label, share: 0, cancel };
    let shown = false;
    const show = () => {
      shown = true;
      this.current.set(working);
    };
    const timer = setTimeout(show, SHOWN_AFTER);
    return {
      at: (share) => {
        working = { ...working, share };
        if (shown) this.current.set(working);
      },
      end: () => {
        clearTimeout(timer);
        if (this.current()?.label === label) this.current.set(null);
      },
    };
  }
}
