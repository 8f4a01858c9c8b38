import { computed, effect, Injectable, inject, signal, untracked } from '@angular/core';
import { rateLabel, type Project } from '@kaizen/core';
import type { BenchState } from '../state/bench';
import type { Snapshot } from '../state/document';
import { Studio } from '../state/studio';
import {
  loadSnapshot,
  openDatabase,
  removeProject,
  saveSnapshot,
  type Database,
  type KeptProject,
} from './database';
import { EditLock } from './edit-lock';

export type KeepStatus =
  | { readonly kind: 'idle' }
  | { readonly kind: 'kept'; readonly at: number }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'failed'; readonly reason: string };

/** A project taken from the browser's storage. */
export interface Removed {
  readonly snapshot: Snapshot;
  readonly bench: unknown;
  readonly kept: KeptProject;
}

/** A save starts this long after an edit, so that a drag's many edits are one; always within a second. */
const DELAY = 250;
const RETRY = 2000;

/**
 * Keeps the open project in this browser: saved within a second of an edit and on leaving. A save that fails says so and
 * is tried again until it holds; nothing is closed before.
 */
@Injectable({ providedIn: 'root' })
export class Keeper {
  private readonly studio = inject(Studio);
  private readonly lock = inject(EditLock);
  private readonly database: Promise<Database> = openDatabase();
  readonly status = signal<KeepStatus>({ kind: 'idle' });
  readonly kept = signal<readonly KeptProject[] | null>(null);
  readonly failed = computed(() => this.status().kind === 'failed');
  private saved: Snapshot | null = null;
  private savedBench: BenchState | null = null;
  private picture = '';
  /** When the open project was edited last. */
  private changed = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private saving: Promise<void> = Promise.resolve();

  constructor() {
    effect(() => {
      const current = this.studio.current();
      const bench = this.studio.bench();
      const readOnly = this.studio.readOnly();
      untracked(() => {
        if (current && !readOnly && (current !== this.saved || bench !== this.savedBench))
          this.schedule(current !== this.saved);
      });
    });
    addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'hidden') void this.flush();
    });
    addEventListener('pagehide', () => void this.flush());
    this.lock.onSaved = () => void this.reload();
    this.lock.onAsked = () => this.flush();
    this.lock.onLost = () => this.studio.setReadOnly(true);
  }

  async list(): Promise<void> {
    try {
      const all = await (await this.database).getAll('projects');
      this.kept.set(all.sort((a, b) => b.changed - a.changed));
    } catch (error) {
      this.kept.set([]);
      this.status.set({ kind: 'failed', reason: reasonOf(error) });
    }
  }

  /** Opens a kept project. False where it isn't kept here (any more). */
  async open(id: string): Promise<boolean> {
    await this.close();
    const db = await this.database;
    const [loaded, kept] = await Promise.all([loadSnapshot(db, id), db.get('projects', id)]);
    if (!loaded) return false;
    const editing = await this.lock.enter(id);
    this.picture = kept?.picture ?? '';
    this.changed = kept?.changed ?? Date.now();
    this.saved = loaded.snapshot;
    this.studio.open(loaded.snapshot, !editing);
    if (loaded.bench) this.studio.restore(loaded.bench);
    this.savedBench = this.studio.bench();
    this.status.set({ kind: 'kept', at: this.changed });
    return true;
  }

  /** Keeps a project that is new here and opens it. */
  async keepNew(project: Project, bench: Partial<BenchState>): Promise<void> {
    await this.close();
    const snapshot: Snapshot = { project, loose: [] };
    await this.lock.enter(project.id);
    this.picture = '';
    this.saved = null;
    this.studio.open(snapshot, false);
    this.studio.restore(bench);
    this.savedBench = this.studio.bench();
    await this.queueSave();
  }

  /** Removes a project from this browser and gives what was removed, so that it can be brought back. */
  async remove(id: string): Promise<Removed | null> {
    const db = await this.database;
    const [loaded, kept] = await Promise.all([loadSnapshot(db, id), db.get('projects', id)]);
    if (this.studio.project()?.id === id) {
      clearTimeout(this.timer);
      this.lock.leave();
      this.saved = null;
      this.studio.close();
    }
    await removeProject(db, id);
    await this.list();
    return loaded && kept ? { ...loaded, kept } : null;
  }

  async bringBack(removed: Removed | null): Promise<void> {
    if (removed) await saveSnapshot(await this.database, null, removed.snapshot, removed.kept, removed.bench);
    await this.list();
  }

  async has(id: string): Promise<boolean> {
    return (await (await this.database).getKey('projects', id)) !== undefined;
  }

  /** Saves and lets the open project go. */
  async close(): Promise<void> {
    await this.flush();
    this.lock.leave();
    this.saved = null;
    this.studio.close();
  }

  async takeOver(): Promise<void> {
    const taken = await this.lock.takeOver();
    await this.reload();
    if (taken) this.studio.setReadOnly(false);
  }

  setPicture(picture: string): void {
    if (picture === this.picture) return;
    this.picture = picture;
    this.schedule(false);
  }

  /** Saves what is not saved yet, at once. */
  flush(): Promise<void> {
    clearTimeout(this.timer);
    const unsaved = this.studio.current() !== this.saved || this.studio.bench() !== this.savedBench;
    return unsaved ? this.queueSave() : this.saving;
  }

  /** One save after the other: each writes what changed since the one before. */
  private queueSave(): Promise<void> {
    this.saving = this.saving.then(() => this.save());
    return this.saving;
  }

  /** A setting of this browser; nothing where there is none, or where nothing can be kept. */
  async setting<T>(name: string): Promise<T | undefined> {
    try {
      return (await (await this.database).get('settings', name)) as T | undefined;
    } catch {
      return undefined;
    }
  }

  async putSetting(name: string, value: unknown): Promise<void> {
    try {
      await (await this.database).put('settings', value, name);
    } catch (error) {
      this.status.set({ kind: 'failed', reason: reasonOf(error) });
    }
  }

  private schedule(changed: boolean, delay = DELAY): void {
    if (changed && this.status().kind !== 'failed') this.status.set({ kind: 'waiting' });
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.queueSave(), delay);
  }

  private async save(): Promise<void> {
    const snapshot = this.studio.current();
    const bench = this.studio.bench();
    if (!snapshot || this.studio.readOnly()) return;
    const { project, loose } = snapshot;
    const edited = snapshot !== this.saved;
    const at = Date.now();
    if (edited) this.changed = at;
    const kept: KeptProject = {
      id: project.id,
      name: project.name,
      rate: rateLabel(project.rate),
      changed: this.changed,
      loose: loose.length,
      picture: this.picture,
    };
    try {
      await saveSnapshot(await this.database, this.saved, snapshot, kept, bench);
      this.saved = snapshot;
      this.savedBench = bench;
      this.status.set({ kind: 'kept', at });
      if (edited) this.lock.saved();
    } catch (error) {
      this.status.set({ kind: 'failed', reason: reasonOf(error) });
      this.schedule(false, RETRY);
    }
  }

  private async reload(): Promise<void> {
    const id = this.studio.project()?.id;
    if (id === undefined) return;
    const loaded = await loadSnapshot(await this.database, id);
    if (!loaded) return;
    this.saved = loaded.snapshot;
    this.studio.follow(loaded.snapshot);
    this.savedBench = this.studio.bench();
    this.status.set({ kind: 'kept', at: Date.now() });
  }
}

function reasonOf(error: unknown): string {
  if (error instanceof DOMException && error.name === 'QuotaExceededError') return 'this disk is full';
  return error instanceof Error ? error.message : String(error);
}
