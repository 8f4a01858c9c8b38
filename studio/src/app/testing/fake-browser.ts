import type { Database } from '../storage/database';
import type { Notepad } from '../storage/last-words';
import type { Locks } from '../storage/project-lock';
import type { Channel, Message, Ports } from '../storage/session';

interface Request {
  readonly tab: FakeTab;
  readonly granted: (lock: Lock | null) => unknown;
  readonly fail: (error: Error) => void;
  readonly done: () => void;
}

/** Locks, channels and clock of a browser with several tabs, by the rules of the standards, all by hand. */
export class FakeBrowser {
  time = 0;
  readonly notes = new Map<string, string>();
  readonly pad: Notepad = {
    getItem: (name) => this.notes.get(name) ?? null,
    setItem: (name, text) => void this.notes.set(name, text),
    removeItem: (name) => void this.notes.delete(name),
  };
  private readonly held = new Map<string, Request>();
  private readonly queues = new Map<string, Request[]>();
  readonly channels = new Map<FakeChannel, string>();
  readonly timers = new Set<{ readonly at: number; readonly tab: FakeTab; readonly run: () => void }>();

  constructor(readonly db: Database) {}

  request(name: string, options: LockOptions, request: Request): void {
    const holder = this.held.get(name);
    if (options.steal && holder) {
      this.held.delete(name);
      holder.fail(new DOMException('stolen', 'AbortError'));
    }
    if (!this.held.has(name)) this.grant(name, request);
    else if (options.ifAvailable) void Promise.resolve(request.granted(null)).then(request.done);
    else {
      const queue = this.queues.get(name) ?? [];
      queue.push(request);
      this.queues.set(name, queue);
      options.signal?.addEventListener('abort', () => {
        const at = queue.indexOf(request);
        if (at < 0) return;
        queue.splice(at, 1);
        request.fail(new DOMException('given up', 'AbortError'));
      });
    }
  }

  private grant(name: string, request: Request): void {
    this.held.set(name, request);
    void Promise.resolve()
      .then(() => request.granted({ name, mode: 'exclusive' }))
      .then(() => this.release(name, request));
  }

  private release(name: string, request: Request): void {
    request.done();
    if (this.held.get(name) !== request) return;
    this.held.delete(name);
    const next = this.queues.get(name)?.shift();
    if (next) this.grant(name, next);
  }

  /** Lets the clock run, timers in their order. */
  async advance(milliseconds: number): Promise<void> {
    await settle();
    const end = this.time + milliseconds;
    for (;;) {
      const due = [...this.timers].filter(({ at }) => at <= end).sort((a, b) => a.at - b.at)[0];
      if (!due) break;
      this.timers.delete(due);
      this.time = due.at;
      due.run();
      await settle();
    }
    this.time = end;
    await settle();
  }

  kill(tab: FakeTab): void {
    for (const timer of this.timers) if (timer.tab === tab) this.timers.delete(timer);
    for (const [channel] of this.channels) if (channel.tab === tab) channel.close();
    for (const queue of this.queues.values())
      for (let i = queue.length - 1; i >= 0; i--) if (queue[i]!.tab === tab) queue.splice(i, 1);
    for (const [name, request] of [...this.held]) if (request.tab === tab) this.release(name, request);
  }
}

class FakeChannel implements Channel {
  onmessage: ((event: MessageEvent<Message>) => void) | null = null;

  constructor(
    readonly tab: FakeTab,
    private readonly name: string,
  ) {
    tab.browser.channels.set(this, name);
  }

  postMessage(message: Message): void {
    for (const [channel, name] of this.tab.browser.channels) {
      if (channel === this || name !== this.name) continue;
      setImmediate(() => {
        if (this.tab.browser.channels.has(channel))
          channel.onmessage?.({ data: message } as MessageEvent<Message>);
      });
    }
  }

  close(): void {
    this.tab.browser.channels.delete(this);
  }
}

/** One tab: what a session asks of its browser. Its disk can be full; it can be killed. */
export class FakeTab {
  full = false;
  dead = false;
  /** Its transactions are committed by the time one wants to abort them. */
  keepsTransactions = false;
  readonly ports: Ports;
  private tokens = 0;

  constructor(
    readonly browser: FakeBrowser,
    readonly name: string,
  ) {
    this.ports = {
      connection: { get: () => Promise.resolve(this.database()), current: this.database() },
      locks: {
        request: ((name: string, options: LockOptions, granted: (lock: Lock | null) => unknown) =>
          new Promise<void>((done, fail) =>
            this.browser.request(name, options, { tab: this, granted, fail, done }),
          )) as Locks['request'],
      },
      pad: browser.pad,
      channel: (name) => new FakeChannel(this, name),
      token: () => `${this.name}-${this.tokens++}`,
      now: () => this.browser.time,
      later: (milliseconds, run) => {
        const timer = { at: this.browser.time + milliseconds, tab: this, run };
        this.browser.timers.add(timer);
        return () => this.browser.timers.delete(timer);
      },
    };
  }

  private database(): Database {
    const begin = this.browser.db.transaction.bind(this.browser.db) as (
      ...asked: readonly unknown[]
    ) => unknown;
    const transaction = (stores: unknown, mode: unknown, options: unknown): unknown => {
      if (this.dead) throw new DOMException('the tab is gone', 'InvalidStateError');
      if (this.full && mode === 'readwrite') throw new DOMException('no room', 'QuotaExceededError');
      const begun = begin(stores, mode, options) as IDBTransaction;
      if (this.keepsTransactions)
        begun.abort = () => {
          throw new DOMException('it is committed', 'InvalidStateError');
        };
      return begun;
    };
    return new Proxy(this.browser.db, {
      get: (target, property) => {
        if (property === 'transaction') return transaction;
        const value: unknown = Reflect.get(target, property);
        return typeof value === 'function' ? (value.bind(target) as unknown) : value;
      },
    });
  }
}

/** Lets everything that is under way go on for some turns of the event loop. */
export async function settle(turns = 12): Promise<void> {
  for (let i = 0; i < turns; i++) await new Promise((turn) => setImmediate(turn));
}
