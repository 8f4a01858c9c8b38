import { type ComponentRef, Injectable } from '@angular/core';

/** A screen that is made before it is shown, asleep. */
export interface Sleeper {
  wake(): void;
}

/** The Bench that was made before its project was there, until its page takes it. */
@Injectable({ providedIn: 'root' })
export class MadeAhead {
  private made: ComponentRef<Sleeper> | null = null;

  get has(): boolean {
    return this.made !== null;
  }

  put(made: ComponentRef<Sleeper>): void {
    this.drop();
    this.made = made;
  }

  take(): ComponentRef<Sleeper> | null {
    const { made } = this;
    this.made = null;
    return made;
  }

  /** Lets go what nobody took. */
  drop(): void {
    this.take()?.destroy();
  }
}
