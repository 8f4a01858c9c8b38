import { Injectable, signal, untracked } from '@angular/core';
import { plainSentence } from '@kaizen/core';

/** One quiet line about what just happened, with at most one press that changes it. */
export interface Notice {
  readonly text: string;
  readonly action?: { readonly label: string; readonly run: () => void };
  readonly kind: 'note' | 'problem';
}

/** A notice is a sentence or two, not a page. */
const MOST_TOLD = 420;
const SHOWN_FOR = 7000;
/** A notice with a press stays longer: it has to be read before it is pressed. */
const PRESS_SHOWN_FOR = 15000;

@Injectable({ providedIn: 'root' })
export class Notices {
  readonly current = signal<Notice | null>(null);
  /** What was told while a notice that can be pressed still stands: it takes nothing from it. */
  readonly beside = signal<Notice | null>(null);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private besideTimer: ReturnType<typeof setTimeout> | undefined;

  tell(text: string, action?: Notice['action']): void {
    if (!action && untracked(this.current)?.action) {
      this.tellBeside(plainSentence(text, MOST_TOLD));
      return;
    }
    this.show({ text: plainSentence(text, MOST_TOLD), kind: 'note', ...(action ? { action } : {}) });
    this.timer = setTimeout(() => this.current.set(null), action ? PRESS_SHOWN_FOR : SHOWN_FOR);
  }

  /** A problem stays until it is closed or something else is told. */
  warn(text: string): void {
    this.show({ text: plainSentence(text, MOST_TOLD), kind: 'problem' });
  }

  /** Takes away what can be pressed, where its press would mean something that is not on the screen any more. */
  clearPress(): void {
    if (untracked(this.current)?.action) this.clear();
  }

  clear(): void {
    clearTimeout(this.timer);
    clearTimeout(this.besideTimer);
    this.current.set(null);
    this.beside.set(null);
  }

  private tellBeside(text: string): void {
    clearTimeout(this.besideTimer);
    this.beside.set({ text, kind: 'note' });
    this.besideTimer = setTimeout(() => this.beside.set(null), SHOWN_FOR);
  }

  private show(notice: Notice): void {
    clearTimeout(this.timer);
    this.current.set(notice);
  }
}
