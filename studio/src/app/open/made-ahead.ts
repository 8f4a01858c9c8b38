import { type ComponentRef, Injectable, signal } from '@angular/core';

/** A screen that is made before it is shown, asleep. */
export interface Sleeper {
  wake(): void;
}

/** The Bench that was made before its project was there, until its page takes it; it is shown where it was made. */
@Injectable({ providedIn: 'root' })
export class MadeAhead {
  private made: ComponentRef<Sleeper> | null = null;
  /** Whether the one that was taken is on show: moved elsewhere, the browser would have to lay it out anew. */
  readonly onShow = signal(false);

  get has(): boolean {
    return this.made !== null;
  }

  put(made: ComponentRef<Sleeper>): void {
    this.drop();
    this.made = made;
  }

  /** Gives it to its page, which shows it from now on and ends it. */
  take(): ComponentRef<Sleeper> | null {
    const { made } = this;
    this.made = null;
    if (!made) return null;
    this.onShow.set(true);
    made.onDestroy(() => this.onShow.set(false));
    return made;
  }

  /** Lets go what nobody took. */
  drop(): void {
    this.made?.destroy();
    this.made = null;
  }
}
