import { openDB } from 'idb';
import { DATABASE_NAME, DATABASE_VERSION, upgradeDatabase, type Database, type Schema } from './database';

/** Why this browser's storage can't be used. `newer`: it was written by a newer Kaizen; `given-way`: a newer one is open in another tab. */
export type Unusable = 'newer' | 'given-way';

/** The storage was written by a newer Kaizen, or this tab has given way to one. */
export class UnusableStorage extends Error {
  constructor(readonly why: Unusable) {
    super(
      why === 'newer'
        ? 'this browser’s storage was written by a newer Kaizen'
        : 'a newer Kaizen was opened in another tab; reload this page',
    );
  }
}

/**
 * The one connection to the browser's storage. It is opened again when the browser cuts it (storage cleared, disk trouble), and
 * let go for good when a newer Kaizen wants to upgrade it.
 */
export class Connection {
  /** The open database, for what must be written without waiting, as when the page goes. */
  current: Database | null = null;
  private opening: Promise<Database> | null = null;
  private unusable: Unusable | null = null;

  constructor(
    private readonly onUnusable: (why: Unusable) => void = () => undefined,
    /** Called before the connection is let go for an upgrade: the last moment to write. */
    private readonly beforeGivingWay: () => void = () => undefined,
    private readonly name = DATABASE_NAME,
    private readonly version = DATABASE_VERSION,
  ) {}

  get(): Promise<Database> {
    if (this.unusable) return Promise.reject(new UnusableStorage(this.unusable));
    this.opening ??= this.open();
    return this.opening;
  }

  close(): void {
    this.current?.close();
    this.forget();
  }

  private async open(): Promise<Database> {
    try {
      const db = await openDB<Schema>(this.name, this.version, {
        upgrade: upgradeDatabase,
        blocking: () => this.giveWay(),
        terminated: () => this.forget(),
      });
      this.current = db;
      return db;
    } catch (error) {
      this.forget();
      if (error instanceof DOMException && error.name === 'VersionError') {
        this.stop('newer');
        throw new UnusableStorage('newer');
      }
      throw error;
    }
  }

  private giveWay(): void {
    this.beforeGivingWay();
    this.stop('given-way');
    this.close();
  }

  private stop(why: Unusable): void {
    this.unusable = why;
    this.onUnusable(why);
  }

  private forget(): void {
    this.current = null;
    this.opening = null;
  }
}
