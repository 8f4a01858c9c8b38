import { Injectable } from '@angular/core';

/** What an open Bench does with what the user brings. */
export interface BenchHands {
  takeSound(name: string, bytes: Uint8Array): Promise<void>;
  /** Brings parts that were just added into sight. */
  bringIntoSight(parts: readonly string[]): void;
}

/** The Bench that is open now, if one is: it enters itself here and takes itself out. */
@Injectable({ providedIn: 'root' })
export class OpenBench {
  hands: BenchHands | null = null;

  enter(hands: BenchHands): () => void {
    this.hands = hands;
    return () => {
      if (this.hands === hands) this.hands = null;
    };
  }
}
