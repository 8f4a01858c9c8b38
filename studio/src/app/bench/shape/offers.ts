import { Injectable, inject } from '@angular/core';
import { Studio } from '../../state/studio';
import { Stage, type Offer } from '../stage';

/**
 * Looking at a preset before taking it: an offer is shown, moving picture and all, while it is rested on; taken it becomes one step of
 * history, let go all is as it was.
 */
@Injectable({ providedIn: 'root' })
export class Offers {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  /** What is shown and not kept; null: nothing. */
  readonly shown = this.stage.offer.asReadonly();

  show(offer: Offer): void {
    this.stage.offer.set(offer);
  }

  /** Lets go of what is shown; true where something was. */
  drop(): boolean {
    const had = this.shown() !== null;
    this.stage.offer.set(null);
    return had;
  }

  /** Keeps an offer, or what is shown. */
  take(offer: Offer | null = this.shown()): void {
    this.drop();
    if (offer && !this.studio.readOnly()) this.studio.edit(offer.label, offer.change);
  }
}
