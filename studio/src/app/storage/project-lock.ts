/** Where a tab stands with a project: it holds it (and alone may write), it does not, or it has left for good. */
export type Hold = 'free' | 'held' | 'left';

/** The part of the browser's Web Locks that is used here. */
export type Locks = Pick<LockManager, 'request'>;

/**
 * One tab edits a project (Web Locks). A lock belongs to one opening of a project: one that is granted after the project was
 * left is given back at once.
 */
export class ProjectLock {
  state: Hold = 'free';
  private release: (() => void) | null = null;
  /** Ends with the requests that were made. */
  private asked: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly project: string,
    private readonly locks: Locks,
    /** Called when another tab took the lock from this one. */
    private readonly onTaken: () => void,
  ) {}

  /** Takes the lock if it is free. */
  tryTake(): Promise<boolean> {
    return this.ask({ ifAvailable: true });
  }

  /** Waits for the lock until `signal` says to give up. */
  wait(signal: AbortSignal): Promise<boolean> {
    return this.ask({ signal });
  }

  /** Takes the lock from whoever holds it. */
  steal(): Promise<boolean> {
    return this.ask({ steal: true });
  }

  /** Lets another tab have it; this one may ask again. */
  letGo(): void {
    if (this.state === 'held') this.state = 'free';
    this.release?.();
    this.release = null;
  }

  /** Leaves for good; the promise ends when the browser has the lock back. */
  leave(): Promise<unknown> {
    this.letGo();
    this.state = 'left';
    return this.asked;
  }

  private ask(options: LockOptions): Promise<boolean> {
    return new Promise((resolve) => {
      /** Whether this very request was granted: only then its end means that the lock was taken. */
      let mine = false;
      const granted = (lock: Lock | null): Promise<void> | undefined => {
        if (!lock || this.state !== 'free') {
          resolve(false);
          return undefined;
        }
        this.state = 'held';
        mine = true;
        resolve(true);
        return new Promise<void>((done) => (this.release = done));
      };
      const request = this.locks.request(`kaizen:${this.project}`, options, granted);
      this.asked = Promise.allSettled([this.asked, request]);
      request.catch(() => {
        resolve(false);
        if (!mine || this.state !== 'held') return;
        this.state = 'free';
        this.release = null;
        this.onTaken();
      });
    });
  }
}
