/** Work waits so long at most, in milliseconds: where nothing is drawn, as in a panel that is closed, nothing is ever seen. */
const LONGEST_WAIT = 4000;

/**
 * Work on a model that waits until its faces were seen once: without a graphics card the processor that does it draws them too, and
 * they would be seen a second later.
 */
export class FirstLook {
  private waiting: (() => void)[] = [];

  /** Does some work after the next look; gives what it gives. */
  after<T>(work: () => Promise<T>): Promise<T> {
    if (this.waiting.length === 0) setTimeout(() => this.seen(), LONGEST_WAIT);
    return new Promise<void>((go) => this.waiting.push(go)).then(work);
  }

  /** They are seen from the page's next frame on: what waits begins after the one that is under way. */
  seen(): void {
    const { waiting } = this;
    this.waiting = [];
    if (waiting.length > 0) setTimeout(() => waiting.forEach((go) => go()));
  }
}
