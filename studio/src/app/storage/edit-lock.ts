import { Injectable, signal } from '@angular/core';

type Message = { readonly kind: 'saved' } | { readonly kind: 'please-release' };

/** How long a tab that holds a project may take to hand it over before it is taken. */
const PATIENCE = 2500;

/**
 * One tab edits a project (Web Locks); others follow it. A follower hears of each save, and can take over: the holder is
 * asked first, so that it saves, and only one that doesn't answer is overruled.
 */
@Injectable({ providedIn: 'root' })
export class EditLock {
  readonly holds = signal(false);
  private channel: BroadcastChannel | null = null;
  private release: (() => void) | null = null;
  private project = '';
  /** Called when another tab saved, and when it asks for the lock (save first). */
  onSaved: () => void = () => undefined;
  onAsked: () => Promise<void> = () => Promise.resolve();
  onLost: () => void = () => undefined;

  /** Tries to get a project for this tab; false where another has it. */
  async enter(project: string): Promise<boolean> {
    this.leave();
    this.project = project;
    this.channel = new BroadcastChannel(`kaizen:${project}`);
    this.channel.onmessage = (event: MessageEvent<Message>) => void this.hear(event.data);
    return this.acquire({ ifAvailable: true });
  }

  leave(): void {
    this.channel?.close();
    this.channel = null;
    this.letGo();
  }

  saved(): void {
    this.send({ kind: 'saved' });
  }

  /** Asks the tab that holds the project for it, and takes it if there is no answer. */
  async takeOver(): Promise<boolean> {
    this.send({ kind: 'please-release' });
    const asked = new AbortController();
    const timer = setTimeout(() => asked.abort(), PATIENCE);
    const given = await this.acquire({ signal: asked.signal });
    clearTimeout(timer);
    return given || this.acquire({ steal: true });
  }

  private send(message: Message): void {
    this.channel?.postMessage(message);
  }

  private async hear(message: Message): Promise<void> {
    if (message.kind === 'saved' && !this.holds()) this.onSaved();
    if (message.kind === 'please-release' && this.holds()) {
      await this.onAsked();
      this.letGo();
      this.onLost();
    }
  }

  private letGo(): void {
    this.release?.();
    this.release = null;
    this.holds.set(false);
  }

  private acquire(options: LockOptions): Promise<boolean> {
    return new Promise((resolve) => {
      const held = navigator.locks.request(`kaizen:${this.project}`, options, (lock) => {
        if (!lock) {
          resolve(false);
          return undefined;
        }
        this.holds.set(true);
        resolve(true);
        return new Promise<void>((done) => (this.release = done));
      });
      held.catch(() => {
        if (this.holds()) {
          this.holds.set(false);
          this.onLost();
        }
        resolve(false);
      });
    });
  }
}
