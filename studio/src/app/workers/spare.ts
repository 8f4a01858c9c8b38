import { whenIdle } from '../ui/when-idle';

/** Milliseconds until another worker is opened in the place of one that was taken. */
const NEXT_AFTER = 3000;

/**
 * A worker opened ahead of its use: so that work begins at once, and that it begins at all where the server has stopped
 * meanwhile.
 */
export class Spare<T extends object> {
  private waiting: T | null = null;

  constructor(private readonly open: () => T) {}

  /** Opens one, if none waits. */
  prepare(): void {
    this.waiting ??= this.open();
  }

  /** The one that waits, while it waits. */
  get idle(): T | null {
    return this.waiting;
  }

  /** The one that waits, or a new one; another is opened later, when the page is idle: not while this one begins its work. */
  take(): T {
    const worker = this.waiting ?? this.open();
    this.waiting = null;
    setTimeout(() => whenIdle(() => this.prepare()), NEXT_AFTER);
    return worker;
  }
}
