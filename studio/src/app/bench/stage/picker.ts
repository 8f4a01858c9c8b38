import { computed, Injectable, inject, signal } from '@angular/core';
import type { Project, Vec3 } from '@kaizen/core';
import { Studio } from '../../state/studio';

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

interface Asked {
  readonly question: PartQuestion;
  readonly project: Project | null;
}

/**
 * Asks for a part. While a question stands, a press on a part in the view or in the rows answers it in place of choosing the part. It
 * is given up with the project, and with the first part that goes: it may be about that one.
 */
@Injectable({ providedIn: 'root' })
export class PartPicker {
  private readonly studio = inject(Studio);
  private readonly asked = signal<Asked | null>(null);
  readonly question = computed(() => {
    const asked = this.asked();
    return asked && hasAllParts(this.studio.project(), asked.project) ? asked.question : null;
  });
  /** Why the part that was pressed last is no answer. */
  readonly refusal = signal<string | null>(null);

  ask(question: PartQuestion): void {
    this.refusal.set(null);
    this.asked.set({ question, project: this.studio.project() });
  }

  /** Ends what is asked again and again. */
  end(): void {
    const end = this.question()?.end;
    this.leave();
    end?.run();
  }

  leave(): void {
    this.asked.set(null);
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

/** Whether a project has still all parts that it, or an earlier state of it, had. */
function hasAllParts(now: Project | null, before: Project | null): boolean {
  if (now?.id !== before?.id) return false;
  if (!now || !before || now.parts === before.parts) return true;
  const ids = new Set(now.parts.map(({ id }) => id));
  return before.parts.every(({ id }) => ids.has(id));
}
