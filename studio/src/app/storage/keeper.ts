import { computed, effect, Injectable, inject, signal, untracked } from '@angular/core';
import { rateLabel, type Project, type ProjectBeside } from '@kaizen/core';
import type { BenchState } from '../state/bench';
import { benchFromRecord, benchRecord } from '../state/bench-record';
import type { Snapshot } from '../state/document';
import { Assets } from '../state/assets';
import { Studio } from '../state/studio';
import { Turns } from '../ui/in-turn.directive';
import { Settings } from '../ui/settings';
import { whenIdle } from '../ui/when-idle';
import { Connection, type Unusable } from './connection';
import { listKept, removeProject, type Database, type KeptProject } from './database';
import { LastWords, type Notepad } from './last-words';
import { load, NOBODY, save, type Kept } from './save';
import { reasonOf, Session, type KeepStatus, type Ports, type TakeOver } from './session';
import { LeaveQuestion } from './leave-question';

export type { KeepStatus } from './session';

/** How opening a project ended; `stay`: the user wants to stay with the open one, whose edits can't be kept; `overtaken`: another was opened meanwhile. */
export type Opened = 'open' | 'not-here' | 'stay' | 'overtaken';

const LOOK_EVERY = 5000;
/** A save waits so long at most until the page has nothing else to do, in milliseconds: what was edited is drawn first. */
const LONGEST_WAIT = 500;

/**
 * Keeps the open project in this browser: a save begins within a second of the first edit that is not kept, and on leaving at
 * once. A save that fails says so and is tried again until it holds; nothing is closed before without asking.
 */
@Injectable({ providedIn: 'root' })
export class Keeper extends Settings {
  private readonly studio = inject(Studio);
  private readonly assets = inject(Assets);
  private readonly question = inject(LeaveQuestion);
  private readonly turns = inject(Turns);
  private readonly connection = new Connection(
    (why) => this.unusable.set(why),
    () => this.goes(),
  );
  private readonly ports: Ports = {
    connection: this.connection,
    locks: navigator.locks,
    pad: localPad,
    channel: (name) => new BroadcastChannel(name),
    token: () => crypto.randomUUID(),
    now: () => Date.now(),
    later: (milliseconds, run) => {
      let wanted = true;
      const once = () => {
        if (wanted) run();
        wanted = false;
      };
      const timer = setTimeout(() => {
        setTimeout(once, LONGEST_WAIT);
        this.turns.take(() => whenIdle(once, LONGEST_WAIT), true);
      }, milliseconds);
      return () => {
        wanted = false;
        clearTimeout(timer);
      };
    },
  };
  readonly status = signal<KeepStatus>({ kind: 'idle' });
  readonly kept = signal<readonly KeptProject[] | null>(null);
  /** Why this browser's storage can't be used at all, where that is so. */
  readonly unusable = signal<Unusable | null>(null);
  /** Counts how often the project was found gone and written whole again, for the page to say so. */
  readonly writtenAgain = signal(0);
  readonly failed = computed(() => ['failed', 'left-behind'].includes(this.status().kind));
  /** Whether somebody has to know that the newest edits are not kept. */
  readonly isInDoubt = computed(() => this.failed() || this.status().kind === 'removed');
  private session: Session | null = null;
  private snapshot: Kept | null = null;
  /** Ends when the lock of the session left last is free again. */
  private letting: Promise<unknown> = Promise.resolve();
  /** Which opening is the newest: what an older one brings comes too late. */
  private opening = 0;

  constructor() {
    super();
    effect(() => {
      this.studio.current();
      this.studio.bench();
      this.studio.readOnly();
      untracked(() => this.takeNow());
    });
    addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'hidden') this.goes();
      else void this.look();
    });
    // a slow page may be ended before it hears that it is hidden, so it minds the question whether it may go as well
    for (const going of ['beforeunload', 'pagehide']) addEventListener(going, () => this.goes());
    setInterval(() => void this.look(), LOOK_EVERY);
  }

  async list(): Promise<void> {
    try {
      this.kept.set(await listKept(await this.database()));
    } catch (error) {
      this.kept.set([]);
      this.status.set({ kind: 'failed', reason: reasonOf(error) });
    }
  }

  /** Opens a kept project. */
  async open(id: string): Promise<Opened> {
    if (!(await this.close())) return 'stay';
    const ticket = ++this.opening;
    await this.letting;
    if (ticket !== this.opening) return 'overtaken';
    const session = this.begin(id);
    const kept = await session.open();
    if (ticket !== this.opening) return 'overtaken';
    if (!kept) {
      this.leave();
      this.session = null;
      return 'not-here';
    }
    this.snapshot = kept;
    this.assets.open(kept.bytes);
    this.studio.open(kept.snapshot, !session.holds);
    this.studio.restore(benchFromRecord(kept.bench, kept.snapshot.project));
    return 'open';
  }

  /**
   * Keeps a project that is new here and opens it, with the bytes that it names; gives its id, or null where the user stays with the
   * open one.
   */
  async keepNew({ project, bytes }: ProjectBeside, bench: Partial<BenchState>): Promise<string | null> {
    if (!(await this.close())) return null;
    const ticket = ++this.opening;
    await this.letting;
    if (ticket !== this.opening) return null;
    const session = this.begin(project.id);
    const snapshot: Snapshot = { project, loose: [] };
    const benchNow = { ...initialBenchOf(project), ...bench };
    const kept = { ...this.keptOf(snapshot, benchNow, Date.now(), ''), bytes: new Map(bytes) };
    const created = await session.create(kept);
    if (ticket !== this.opening) return null;
    if (!created) return this.keepNew({ project: { ...project, id: crypto.randomUUID() }, bytes }, bench);
    this.snapshot = kept;
    this.assets.open(kept.bytes);
    this.studio.open(snapshot, false);
    this.studio.restore(bench);
    return project.id;
  }

  /** Removes a project from this browser and gives what was removed, so that it can be brought back. */
  async remove(id: string): Promise<Kept | null> {
    const db = await this.database();
    const mine = this.session?.project === id ? this.session : null;
    if (mine) await this.flush();
    const loaded = await load(db, id);
    if (mine) this.letGo();
    await removeProject(db, id);
    new LastWords(id, localPad).forget();
    const told = new BroadcastChannel(`kaizen:${id}`);
    told.postMessage({ kind: 'removed' });
    told.close();
    await this.list();
    return loaded;
  }

  async bringBack(removed: Kept | null): Promise<void> {
    if (removed) await save(await this.database(), { token: NOBODY, revision: 0 }, null, removed);
    await this.list();
  }

  /** The names of all kept projects. */
  async names(): Promise<readonly string[]> {
    return (await (await this.database()).getAll('projects')).map(({ name }) => name);
  }

  async has(id: string): Promise<boolean> {
    return (await (await this.database()).getKey('projects', id)) !== undefined;
  }

  /**
   * Saves and lets the open project go. Where it can't be kept the user is asked; false where they rather stay and go on
   * trying.
   */
  async close(): Promise<boolean> {
    this.takeNow();
    const { session } = this;
    if (session && !(await session.flush()) && session === this.session) {
      const { project } = this.studio.current() ?? {};
      if (project && (await this.question.ask(project, session.failed)) === 'stay') return false;
    }
    if (session === this.session) this.letGo();
    return true;
  }

  /** Takes the project from the tab that edits it; `must`: even where that tab has edits it could not keep. */
  takeOver(must = false): Promise<TakeOver> {
    return this.session?.takeOver(must) ?? Promise.resolve('left');
  }

  letGoUnkept(): Promise<void> {
    return this.session?.letGoUnkept() ?? Promise.resolve();
  }

  keepAgain(): Promise<void> {
    return this.session?.keepAgain() ?? Promise.resolve();
  }

  setPicture(picture: string): void {
    if (!this.snapshot || picture === this.snapshot.picture) return;
    this.put({ ...this.snapshot, picture });
  }

  /** Saves what is not saved yet, at once. */
  async flush(): Promise<void> {
    this.takeNow();
    await this.session?.flush();
  }

  /** Whether the page has edits that are nowhere else. */
  get unkept(): boolean {
    return this.session?.unkept ?? false;
  }

  /** A setting of this browser; nothing where there is none, or where nothing can be kept. */
  override async setting<T>(name: string): Promise<T | undefined> {
    try {
      return (await (await this.database()).get('settings', name)) as T | undefined;
    } catch {
      return undefined;
    }
  }

  override async putSetting(name: string, value: unknown): Promise<void> {
    try {
      await (await this.database()).put('settings', value, name);
    } catch (error) {
      this.status.set({ kind: 'failed', reason: reasonOf(error) });
    }
  }

  private database(): Promise<Database> {
    return this.connection.get();
  }

  private async look(): Promise<void> {
    if (document.visibilityState === 'hidden') return;
    await this.session?.look().catch((error: unknown) => {
      this.status.set({ kind: 'failed', reason: reasonOf(error) });
    });
  }

  private begin(id: string): Session {
    const session: Session = new Session(id, this.ports, {
      mayEdit: (may) => this.ifCurrent(session, () => this.studio.setReadOnly(!may)),
      followed: (kept) =>
        this.ifCurrent(session, () => {
          if (this.snapshot) this.snapshot = { ...this.snapshot, snapshot: kept.snapshot };
          this.assets.add(kept.bytes);
          this.studio.follow(kept.snapshot);
        }),
      status: (status) => this.ifCurrent(session, () => this.status.set(status)),
      writtenAgain: () => this.ifCurrent(session, () => this.writtenAgain.update((count) => count + 1)),
    });
    this.leave();
    this.session = session;
    return session;
  }

  private leave(): void {
    if (this.session) this.letting = this.session.leave();
  }

  private ifCurrent(session: Session, run: () => void): void {
    if (session === this.session) run();
  }

  private letGo(): void {
    this.opening++;
    this.leave();
    this.session = null;
    this.snapshot = null;
    this.status.set({ kind: 'idle' });
    this.studio.close();
  }

  /** For a page that goes: writes without waiting for anything. */
  private goes(): void {
    this.takeNow();
    this.session?.flushAtOnce();
  }

  /** Takes what the store has by now. After an edit that happens by itself, but a moment later, and the page may be gone by then. */
  private takeNow(): void {
    const current = this.studio.current();
    if (current && !this.studio.readOnly()) this.take(current, this.studio.bench());
  }

  private take(current: Snapshot, bench: BenchState): void {
    const last = this.snapshot;
    if (!last || last.snapshot.project.id !== current.project.id) return;
    const edited = current !== last.snapshot;
    const record = benchRecord(bench, last.bench);
    if (!edited && record === last.bench) return;
    this.put(this.keptOf(current, bench, edited ? Date.now() : last.record.changed, last.picture, record));
  }

  private put(kept: Kept): void {
    this.snapshot = kept;
    this.session?.take(kept);
  }

  private keptOf(
    snapshot: Snapshot,
    bench: BenchState,
    changed: number,
    picture: string,
    record: unknown = benchRecord(bench, null),
  ): Kept {
    const { project, loose } = snapshot;
    return {
      snapshot,
      record: {
        id: project.id,
        name: project.name,
        rate: rateLabel(project.rate),
        changed,
        loose: loose.length,
      },
      bench: record,
      picture,
      bytes: this.assets.beside,
    };
  }
}

/** The page's `localStorage`, which may be shut off: then reading it throws. */
const localPad: Notepad = {
  getItem: (name) => localStorage.getItem(name),
  setItem: (name, text) => localStorage.setItem(name, text),
  removeItem: (name) => localStorage.removeItem(name),
};

function initialBenchOf(project: Project): BenchState {
  return benchFromRecord(null, project);
}
