import { REMOVED, type Database, type Holder } from './database';
import { LastWords, type Base } from './last-words';
import { ProjectLock } from './project-lock';
import {
  load,
  loadChanges,
  NotHeld,
  save,
  saveAtOnce,
  savePiecesAhead,
  type Kept,
  type Loaded,
  type Written,
} from './save';
import type { Channel, Heard, Message, Ports, TakeOver } from './session-ports';

export type { Channel, Heard, KeepStatus, Message, Ports, TakeOver } from './session-ports';

/** A save starts this long after the first edit that is not kept, whatever follows; a drag's many edits are one save. */
export const SAVE_AFTER = 250;
export const TRY_AGAIN_AFTER = 2000;
/** How long a tab that holds a project may take to hand it over before it is taken. */
export const PATIENCE = 2500;

/**
 * One opening of one project by one tab, as a state machine: it holds the project or follows the tab that does; what it holds
 * it keeps. Whatever comes late (a lock, a load, a message) finds the session left and does nothing.
 */
export class Session {
  private readonly lock: ProjectLock;
  private readonly lastWords: LastWords;
  private readonly channel: Channel;
  private holder: Holder;
  /** What the storage has, as far as this tab knows. */
  private saved: Kept | null = null;
  /** What the page has. */
  private kept: Kept | null = null;
  /** What a save under way writes. */
  private writing: Kept | null = null;
  private failure: string | null = null;
  private removed = false;
  /** Nothing of the project was ever written. */
  private isNew = false;
  private cancelTimer: (() => void) | null = null;
  private saving: Promise<void> | null = null;
  /** Takes back what a save under way has not committed yet. */
  private giveUp = new AbortController();
  /** Set while another tab is asked for the project. */
  private asking: ((answer: TakeOver) => void) | null = null;
  /** A take-over under way. */
  private taking: Promise<TakeOver> | null = null;
  private following: Promise<void> = Promise.resolve();

  constructor(
    readonly project: string,
    private readonly ports: Ports,
    private readonly heard: Heard,
  ) {
    this.holder = { token: ports.token(), revision: 0 };
    this.lock = new ProjectLock(project, ports.locks, () => this.taken());
    this.lastWords = new LastWords(project, ports.pad);
    this.channel = ports.channel(`kaizen:${project}`);
    this.channel.onmessage = ({ data }) => this.hear(data);
  }

  get holds(): boolean {
    return this.lock.state === 'held';
  }

  get left(): boolean {
    return this.lock.state === 'left';
  }

  /** Whether the page has anything that the storage does not. */
  get unkept(): boolean {
    return this.kept !== this.saved;
  }

  /** Why what is unkept could not be kept, where it was tried. */
  get failed(): string | null {
    return this.unkept ? this.failure : null;
  }

  /**
   * Opens what is stored. Null where it is not kept here, or where the session was left meanwhile. What another tab keeps while this
   * reads is followed after it.
   */
  open(): Promise<Kept | null> {
    const opening = this.openNow();
    this.following = opening.then(
      () => undefined,
      () => undefined,
    );
    return opening;
  }

  private async openNow(): Promise<Kept | null> {
    const holds = await this.lock.tryTake();
    const db = await this.ports.connection.get();
    const loaded = this.left ? null : await load(db, this.project, holds ? this.holder.token : undefined);
    if (!loaded || this.left) return null;
    this.holder = { ...this.holder, revision: loaded.revision };
    return this.begin(loaded);
  }

  /**
   * Begins with what was loaded, and with what the page before could not wait for, where this tab may write it; `show` shows it
   * before it is said how it stands.
   */
  private begin(loaded: Loaded, show: (kept: Kept) => void = () => undefined): Kept {
    this.saved = loaded;
    this.kept = this.holds ? this.lastWords.heed(loaded) : loaded;
    show(this.kept);
    this.heard.status(this.unkept ? { kind: 'waiting' } : { kind: 'kept', at: loaded.record.changed });
    if (this.unkept) this.schedule(SAVE_AFTER);
    return this.kept;
  }

  /** Keeps a project that is new here; false where another tab holds one of this id. */
  async create(kept: Kept): Promise<boolean> {
    if (!(await this.lock.tryTake())) return false;
    this.kept = kept;
    this.isNew = true;
    this.heard.status({ kind: 'waiting' });
    this.schedule(SAVE_AFTER);
    return true;
  }

  /** Takes what the page has now; a save follows soon. */
  take(kept: Kept): void {
    if (!this.holds || this.left) return;
    const edited = kept.snapshot !== this.kept?.snapshot;
    const asSaved = this.removed && !this.unkept && !edited;
    this.kept = kept;
    // only an edit writes a removed project again, not its picture or what is chosen
    if (asSaved) this.saved = kept;
    if (!this.unkept) return;
    if (edited && this.failure === null) this.heard.status({ kind: 'waiting' });
    if (this.failure === null) this.schedule(SAVE_AFTER);
  }

  /** Saves what is not saved yet, at once. True when nothing is left unkept. */
  async flush(): Promise<boolean> {
    this.unschedule();
    while (this.unkept && this.holds) {
      this.saving ??= this.saveOnce().finally(() => (this.saving = null));
      await this.saving;
      if (this.failure !== null) return false;
    }
    return !this.unkept;
  }

  /**
   * For a page that goes: writes without waiting for anything, and notes it down as well. A save under way is taken back, as what waits
   * behind it would not be written any more; should the page stay, it is done again.
   */
  flushAtOnce(): void {
    const db = this.ports.connection.current;
    const { kept } = this;
    if (!kept || !this.holds) return;
    if (!this.unkept) this.lastWords.forget();
    else this.lastWords.tell(this.bases, kept);
    if (!db || !this.unkept) return;
    this.giveUp.abort();
    try {
      saveAtOnce(db, this.holder, this.saved, kept);
      this.send({ kind: 'going' });
    } catch {
      // The storage is shut: the save that is due says so.
    }
  }

  /** What the storage has when this page is gone: what is saved, or what is being saved, which may be past being taken back. */
  private get bases(): readonly Base[] {
    const { saved, writing } = this;
    const { revision } = this.holder;
    const bases: Base[] = saved ? [{ revision, kept: saved }] : [];
    if (writing && writing.snapshot !== saved?.snapshot)
      bases.push({ revision: revision + 1, kept: writing });
    return bases;
  }

  /** Lets go what could not be kept before another tab took the project, and follows that tab. */
  async letGoUnkept(): Promise<void> {
    if (this.holds) return;
    this.failure = null;
    this.saved = this.kept;
    await this.follow();
  }

  /** Writes the project whole again, where another tab removed it. */
  async keepAgain(): Promise<void> {
    this.removed = false;
    this.saved = null;
    await this.flush();
  }

  /**
   * Looks whether the storage still has the project; where it was cleared, it is written whole again. A tab that follows looks whether
   * it missed anything.
   */
  async look(): Promise<void> {
    if (this.removed || this.unkept || this.saving) return;
    const db = await this.ports.connection.get();
    const [there, holder] = await Promise.all([
      db.getKey('heads', this.project),
      db.get('holders', this.project),
    ]);
    if (!this.holds && holder && holder.revision !== this.holder.revision) await this.follow();
    if (there !== undefined || !this.holds || this.removed || this.unkept) return;
    if (holder?.token === REMOVED) {
      this.hearRemoved();
      return;
    }
    await this.keepAgain();
    if (!this.unkept) this.heard.writtenAgain();
  }

  /** Tells the other tabs that this one removed the project. */
  tellRemoved(): void {
    this.send({ kind: 'removed' });
  }

  /** Leaves for good; the promise ends when another opening may have the lock. */
  leave(): Promise<unknown> {
    this.unschedule();
    if (this.holds) this.lastWords.forget();
    this.asking?.('left');
    this.channel.onmessage = null;
    this.channel.close();
    return this.lock.leave();
  }

  /** Asks the tab that holds the project for it, and takes it where there is no answer, or where it must be. One at a time. */
  async takeOver(must = false): Promise<TakeOver> {
    if (this.taking && !must) return this.taking;
    this.asking?.('left');
    await this.taking;
    const taking = this.takeOverNow(must).finally(() => {
      if (this.taking === taking) this.taking = null;
    });
    this.taking = taking;
    return taking;
  }

  private async takeOverNow(must: boolean): Promise<TakeOver> {
    if (this.left || (this.unkept && !this.holds)) return 'left';
    if (this.holds) return 'taken';
    const answer = must ? null : await this.askForIt();
    if (answer !== null && answer !== 'taken') return answer;
    if (answer === null && !this.holds && !(await this.lock.steal())) return 'left';
    let loaded: Loaded | null;
    try {
      loaded = await load(await this.ports.connection.get(), this.project, this.holder.token);
    } catch (error) {
      this.letGo();
      this.heard.status({ kind: 'failed', reason: reasonOf(error) });
      return 'left';
    }
    if (this.left || !this.holds) return 'left';
    if (loaded) {
      this.holder = { ...this.holder, revision: loaded.revision };
      this.begin(loaded, this.heard.followed);
    } else await this.keepAgain();
    if (!this.holds) return 'left';
    this.heard.mayEdit(true);
    return 'taken';
  }

  /** Null where there was no answer in time. */
  private askForIt(): Promise<TakeOver | null> {
    const giveUp = new AbortController();
    return new Promise((resolve) => {
      const answer = (value: TakeOver | null) => {
        if (!this.asking) return;
        this.asking = null;
        cancel();
        giveUp.abort();
        resolve(value);
      };
      this.asking = answer;
      const cancel = this.ports.later(PATIENCE, () => answer(null));
      void this.lock.wait(giveUp.signal).then((given) => {
        if (given && this.asking === answer) answer('taken');
        else if (given) this.letGo();
      });
      this.send({ kind: 'please-release' });
    });
  }

  private hear(message: Message): void {
    if (this.left) return;
    switch (message.kind) {
      case 'saved':
        void this.follow(message);
        break;
      case 'going':
        void this.follow();
        break;
      case 'please-release':
        if (this.holds) void this.handOver();
        break;
      case 'cannot-release':
        this.asking?.(message);
        break;
      case 'removed':
        this.hearRemoved();
        break;
    }
  }

  private hearRemoved(): void {
    this.removed = true;
    this.dropWhatIsNoEdit();
    this.heard.status({ kind: 'removed' });
  }

  private async handOver(): Promise<void> {
    if (!(await this.flush())) {
      this.send({ kind: 'cannot-release', reason: this.failure ?? 'it can’t be kept' });
      return;
    }
    this.letGo();
  }

  /** Lets another tab have the project. */
  private letGo(): void {
    if (!this.holds) return;
    this.lock.letGo();
    this.heard.mayEdit(false);
  }

  /** Another tab took the project without being given it. */
  private taken(): void {
    this.unschedule();
    this.heard.mayEdit(false);
    this.dropWhatIsNoEdit();
    if (this.unkept) this.heard.status({ kind: 'left-behind' });
    else void this.follow();
  }

  /** Where only a picture or what is chosen waits to be kept, nothing waits: that is no edit. */
  private dropWhatIsNoEdit(): void {
    if (this.kept?.snapshot === this.saved?.snapshot) this.saved = this.kept;
  }

  /** Shows what the storage has by now; `written`: what a save says it wrote. One after the other. */
  private follow(written?: Written): Promise<void> {
    this.following = this.following.then(() => this.followNow(written)).catch(() => undefined);
    return this.following;
  }

  private async followNow(written?: Written): Promise<void> {
    const { kept } = this;
    if (!kept || this.left || this.holds || this.unkept) return;
    const db = await this.ports.connection.get();
    const changed =
      written && (await loadChanges(db, this.project, { ...kept, revision: this.holder.revision }, written));
    const loaded = changed ? null : await load(db, this.project);
    if (this.left || this.holds || this.unkept || this.kept !== kept) return;
    const next = changed ? { ...kept, snapshot: changed } : loaded;
    if (!next) return;
    this.holder = { ...this.holder, revision: changed ? written.revision : loaded!.revision };
    this.saved = this.kept = next;
    this.heard.followed(next);
    this.heard.status({ kind: 'kept', at: this.ports.now() });
  }

  private async saveOnce(): Promise<void> {
    const { kept, saved } = this;
    if (!kept) return;
    this.giveUp = new AbortController();
    const { signal } = this.giveUp;
    try {
      const db = await this.ports.connection.get();
      if (!this.holds) return;
      const ahead = this.isNew ? await savePiecesAhead(db, kept, signal) : null;
      this.isNew = false;
      if (!this.holds) return;
      const wasRemoved = this.removed;
      this.writing = kept;
      const { written, again } = await save(db, this.holder, wasRemoved ? null : saved, kept, ahead, signal);
      this.failure = null;
      if (!written || (!wasRemoved && (await this.wentMeanwhile(db)))) {
        this.saved = kept;
        return;
      }
      this.removed = false;
      this.holder = { ...this.holder, revision: written.revision };
      this.saved = kept;
      this.sayHowItStands();
      if (again) this.heard.writtenAgain();
      if (kept.snapshot !== saved?.snapshot) this.send({ kind: 'saved', ...written });
    } catch (error) {
      if (error instanceof NotHeld) {
        this.lock.letGo();
        this.taken();
        return;
      }
      if (signal.aborted) {
        if (!this.left) this.schedule(SAVE_AFTER);
        return;
      }
      this.failure = reasonOf(error);
      if (this.left) return;
      this.heard.status({ kind: 'failed', reason: this.failure });
      this.schedule(TRY_AGAIN_AFTER);
    } finally {
      this.writing = null;
    }
  }

  /** After a save: what was edited meanwhile waits, or stays behind where the project was taken meanwhile. */
  private sayHowItStands(): void {
    if (!this.holds) this.dropWhatIsNoEdit();
    if (!this.unkept) this.heard.status({ kind: 'kept', at: this.ports.now() });
    else this.heard.status({ kind: this.holds ? 'waiting' : 'left-behind' });
    if (!this.holds) void this.follow();
  }

  /** Whether the project was removed by another tab while this one saved, after what was saved. */
  private async wentMeanwhile(db: Database): Promise<boolean> {
    return this.removed && (await db.getKey('heads', this.project)) === undefined;
  }

  private send(message: Message): void {
    if (!this.left) this.channel.postMessage(message);
  }

  /** A timer that runs is not started anew: the first edit that is not kept sets the time. */
  private schedule(milliseconds: number): void {
    this.cancelTimer ??= this.ports.later(milliseconds, () => {
      this.cancelTimer = null;
      void this.flush();
    });
  }

  private unschedule(): void {
    this.cancelTimer?.();
    this.cancelTimer = null;
  }
}

/** Why something could not be kept, in words. */
export function reasonOf(error: unknown): string {
  if (error instanceof DOMException && error.name === 'QuotaExceededError') return 'this disk is full';
  return error instanceof Error ? error.message : String(error);
}
