import type { KeptRecord } from './database';
import { itemOf, textOf } from './piece-text';
import { changesBetween, withChanges, type Head } from './pieces';
import type { Kept, Loaded } from './save';
import { mayHaveBlob } from './stowed';

/** A storage that has what it is told before it returns, as a page's `localStorage`. */
export type Notepad = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/** What was edited since the save of a revision, as text. */
interface Words {
  readonly revision: number;
  readonly since: number;
  readonly record: KeptRecord;
  readonly head: Head | null;
  readonly written: readonly (readonly [key: string, text: string])[];
  readonly removed: readonly string[];
}

/** More is not noted down: a notepad holds about five million characters for all projects. */
const MOST_CHARACTERS = 1_000_000;

/**
 * The last edits of one project that a page which goes could not wait for. A database may lose what it is told in the page’s last
 * moments, so they are noted down as well; who opens the project next and finds it as it was before them has them from here.
 */
export class LastWords {
  private readonly name: string;

  constructor(
    project: string,
    private readonly pad: Notepad,
  ) {
    this.name = `kaizen:last-words:${project}`;
  }

  /** Notes down what changed since the save of a revision. What is too long, or may have bytes beside it, is not. */
  tell(revision: number, last: Kept, next: Kept): void {
    this.forget();
    const { head, written, removed } = changesBetween(last.snapshot, next.snapshot);
    if (written.some(({ key }) => mayHaveBlob(key))) return;
    const words: Words = {
      revision,
      since: last.record.changed,
      record: next.record,
      head,
      written: written.map(({ key, value }) => [key, textOf(key, value)]),
      removed,
    };
    const text = JSON.stringify(words);
    if (text.length > MOST_CHARACTERS) return;
    this.guarded(() => this.pad.setItem(this.name, text));
  }

  /** What was loaded with the edits that were noted down after it; the very same where there are none, or a note that can't be read. */
  heed(loaded: Loaded): Kept {
    return this.guarded(() => this.joined(loaded)) ?? loaded;
  }

  forget(): void {
    this.guarded(() => this.pad.removeItem(this.name));
  }

  private joined(loaded: Loaded): Kept | null {
    const words = JSON.parse(this.pad.getItem(this.name) ?? 'null') as Words | null;
    if (words?.revision !== loaded.revision || words.since !== loaded.record.changed) return null;
    const { head, removed, record } = words;
    const written = words.written.map(([key, text]) => ({ key, value: itemOf(key, text) }));
    const snapshot = withChanges(loaded.snapshot, { head, written, removed });
    return snapshot && { ...loaded, snapshot, record };
  }

  /** A notepad may be full, or shut off: then there are no last words, as before there was one. */
  private guarded<T>(run: () => T): T | undefined {
    try {
      return run();
    } catch {
      return undefined;
    }
  }
}
