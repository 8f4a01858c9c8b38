import type { Connection } from './connection';
import type { Notepad } from './last-words';
import type { Locks } from './project-lock';
import type { Kept, Written } from './save';

/** How it stands with what was edited. */
export type KeepStatus =
  | { readonly kind: 'idle' }
  | { readonly kind: 'kept'; readonly at: number }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'failed'; readonly reason: string }
  /** Another tab removed the project; it is written again with the next edit, or when asked to. */
  | { readonly kind: 'removed' }
  /** Another tab took the project while edits of this one could not be kept: they are only here. */
  | { readonly kind: 'left-behind' };

/** What the tabs of one project tell each other. */
export type Message =
  | ({ readonly kind: 'saved' } & Written)
  /** A page that goes has written what it had left, without waiting for it. */
  | { readonly kind: 'going' }
  | { readonly kind: 'please-release' }
  | { readonly kind: 'cannot-release'; readonly reason: string }
  | { readonly kind: 'removed' };

export interface Channel {
  postMessage(message: Message): void;
  onmessage: ((event: MessageEvent<Message>) => void) | null;
  close(): void;
}

/** What a session needs of the browser; tests give their own. */
export interface Ports {
  readonly connection: Pick<Connection, 'get' | 'current'>;
  readonly locks: Locks;
  readonly pad: Notepad;
  readonly channel: (name: string) => Channel;
  readonly token: () => string;
  readonly now: () => number;
  /** Calls back after some milliseconds; the function given back takes that back. */
  readonly later: (milliseconds: number, run: () => void) => () => void;
}

/** What a session tells the page. */
export interface Heard {
  /** This tab may edit no longer, or may from now on. */
  readonly mayEdit: (may: boolean) => void;
  /** Another tab kept something else: this is what there is now. */
  readonly followed: (kept: Pick<Kept, 'snapshot' | 'bytes'>) => void;
  readonly status: (status: KeepStatus) => void;
  /** The project was gone from the storage and has been written whole again. */
  readonly writtenAgain: () => void;
}

/** How asking for a project that another tab holds ended; `cannot-release`: that tab has edits it could not keep. */
export type TakeOver = 'taken' | 'left' | { readonly kind: 'cannot-release'; readonly reason: string };
