import type { KeptRecord } from './database';
import { itemOf, textOf } from './piece-text';
import { changesBetween, withChanges, type Head } from './pieces';
import type { Kept, Loaded } from './save';
import { mayHaveBlob } from './stowed';

/** A storage that has what it is told before it returns, as a page's `localStorage`. */
export type Notepad = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/** What the database has, or may have by the time it is asked, and at which revision. */
export interface Base {
  readonly revision: number;
  readonly kept: Kept;
}

/** What was edited since a base, as text. */
interface Words {
  readonly revision: number;
  readonly since: number;
  readonly head: Head | null;
  readonly written: readonly (readonly [key: string, text: string])[];
  readonly removed: readonly string[];
}

interface Note {
  readonly record: KeptRecord;
  readonly words: readonly Words[];
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

  /**
   * Notes down what changed since each of some bases, in the place of an older note. What is too long, or may have bytes beside it, is
   * not noted.
   */
  tell(bases: readonly Base[], next: Kept): void {
    const words = bases.flatMap((base) => wordsSince(base, next) ?? []);
    const note: Note = { record: next.record, words };
    const text = JSON.stringify(note);
    const noted =
      words.length > 0 &&
      text.length <= MOST_CHARACTERS &&
      this.guarded(() => {
        this.pad.setItem(this.name, text);
        return true;
      });
    if (!noted) this.forget();
  }

  /** What was loaded with the edits that were noted down after it; the very same where there are none, or a note that can't be read. */
  heed(loaded: Loaded): Kept {
    return this.guarded(() => this.joined(loaded)) ?? loaded;
  }

  forget(): void {
    this.guarded(() => this.pad.removeItem(this.name));
  }

  private joined(loaded: Loaded): Kept | null {
    const note = JSON.parse(this.pad.getItem(this.name) ?? 'null') as Note | null;
    const { revision, record } = loaded;
    const words = note?.words.find((each) => each.revision === revision && each.since === record.changed);
    if (!note || !words) return null;
    const { head, removed } = words;
    const written = words.written.map(([key, text]) => ({ key, value: itemOf(key, text) }));
    const snapshot = withChanges(loaded.snapshot, { head, written, removed });
    return snapshot && { ...loaded, snapshot, record: note.record };
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

/** Null where a piece that changed may have bytes beside it. */
function wordsSince({ revision, kept }: Base, next: Kept): Words | null {
  const { head, written, removed } = changesBetween(kept.snapshot, next.snapshot);
  if (written.some(({ key }) => mayHaveBlob(key))) return null;
  return {
    revision,
    since: kept.record.changed,
    head,
    written: written.map(({ key, value }) => [key, textOf(key, value)]),
    removed,
  };
}
