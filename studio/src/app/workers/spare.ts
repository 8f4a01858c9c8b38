import { whenIdle } from '../ui/when-idle';

/**
 * A worker opened ahead of its use: so that work begins at once, and that it begins at all where the server has stopped
 * meanwhile.
 */
export class Spare {
  private waiting: Worker | null = null;

  constructor(private readonly open: () => Worker) {}

  /** Opens one, if none waits. */
  prepare(): void {
    this.waiting ??= this.open();
  }

  /** The one that waits, or a new one; another is opened when the page is idle. */
  take(): Worker {
    const worker = this.waiting ?? this.open();
    this.waiting = null;
    whenIdle(() => this.prepare());
    return worker;
  }
}
