import { Injectable, signal } from '@angular/core';
import type { Vec3 } from '@kaizen/core';

/** A question that a part answers: picked in the view or in the rows. */
export interface PartQuestion {
  /** What is asked, in words: `Pick the part that Tine rack will ride on`. */
  readonly words: string;
  /** Why a part is no answer, in one sentence; null where it is one. */
  readonly refuse: (part: string) => string | null;
  /** A place beside all parts is an answer too: it is on the floor, and its part is an empty text. */
  readonly anywhere?: true;
  /** It is asked again and again until this is pressed. */
  readonly end?: { readonly label: string; readonly run: () => void };
  /** `place` is where it was pressed, in the world; null where a row was. `channel` is that of the row, where it is one's. */
  readonly take: (part: string, place: Vec3 | null, channel?: string) => void;
}

/** Asks for a part. While a question stands, a press on a part in the view or in the rows answers it in place of choosing the part. */
@Injectable({ providedIn: 'root' })
export class PartPicker {
  readonly question = signal<PartQuestion | null>(null);
  /** Why the part that was pressed last is no answer. */
  readonly refusal = signal<string | null>(null);

  ask(question: PartQuestion): void {
    this.refusal.set(null);
    this.question.set(question);
  }

  /** Ends what is asked again and again. */
  end(): void {
    const end = this.question()?.end;
    this.leave();
    end?.run();
  }

  leave(): void {
    this.question.set(null);
    this.refusal.set(null);
  }

  /** Gives a part as the answer; false where nothing was asked. A press beside all parts is no answer, and the question stays. */
  answer(part: string | null, place: Vec3 | null = null, channel?: string): boolean {
    const question = this.question();
    if (!question) return false;
    if (part === null && !(question.anywhere && place)) return true;
    const refusal = part === null ? null : question.refuse(part);
    this.refusal.set(refusal);
    if (refusal !== null) return true;
    this.leave();
    question.take(part ?? '', place, channel);
    return true;
  }
}
