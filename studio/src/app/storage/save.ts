import { unwrap, type IDBPTransaction } from 'idb';
import type { AssetBytes } from '@kaizen/core';
import type { Snapshot } from '../state/document';
import { whenIdle } from '../ui/when-idle';
import {
  keysOf,
  PROJECT_STORES,
  REMOVED,
  type Database,
  type Holder,
  type KeptRecord,
  type Schema,
} from './database';
import { itemOf, textOf } from './piece-text';
import { changesBetween, headWithLists, joinPieces, piecesByKey, withChanges } from './pieces';
import { blobNamed, mayHaveBlob, stow, unstow } from './stowed';

/** All that is kept of an open project. */
export interface Kept {
  readonly snapshot: Snapshot;
  readonly record: KeptRecord;
  readonly bench: unknown;
  readonly picture: string;
  /** The bytes of its models and sounds by their SHA-256, which the project only names. */
  readonly bytes: Map<string, Uint8Array>;
}

/** What a save wrote, for the tabs that follow: which pieces, and whether the head. */
export interface Written {
  readonly revision: number;
  readonly head: boolean;
  readonly written: readonly string[];
  readonly removed: readonly string[];
}

/** The token of a project that was written and is held by no tab. */
export const NOBODY = '';

/** Another tab holds the project by now: nothing was written. */
export class NotHeld extends Error {
  constructor() {
    super('another tab edits this project by now');
  }
}

/**
 * Writes what changed since `last` in one strict transaction: all of it, or nothing; strict means on the disk before it
 * counts as done. Before anything is written the transaction looks whether the project is still this tab's, and whether it is
 * still there: where it was removed or the storage was cleared, an edit writes the whole project again, and what is no edit writes
 * nothing. `ahead` is a snapshot whose pieces were written before, while there was no head. `giveUp` takes back what is not
 * committed yet; the promise is rejected then.
 */
export async function save(
  db: Database,
  holder: Holder,
  last: Kept | null,
  next: Kept,
  ahead: Snapshot | null = null,
  giveUp?: AbortSignal,
): Promise<{ readonly written: Written | null; readonly again: boolean }> {
  const transaction = db.transaction(PROJECT_STORES, 'readwrite', { durability: 'strict' });
  abortedBy(giveUp, transaction);
  const id = next.snapshot.project.id;
  const [known, head] = await Promise.all([
    transaction.objectStore('holders').get(id),
    transaction.objectStore('heads').getKey(id),
  ]);
  if (known && ![holder.token, NOBODY, REMOVED].includes(known.token)) {
    transaction.abort();
    await transaction.done.catch(() => undefined);
    throw new NotHeld();
  }
  try {
    const again = head === undefined && last !== null;
    if (again && last.snapshot === next.snapshot) {
      await transaction.done;
      return { written: null, again: false };
    }
    const written = await write(transaction, holder, again ? null : last, next, { ahead, inSlices: true });
    return { written, again };
  } catch (error) {
    try {
      transaction.abort();
    } catch {
      // It has ended already.
    }
    throw await causeOf(transaction.done, error);
  }
}

/** Why a transaction failed: what ended it, where one of its requests only heard that it was ended. */
async function causeOf(done: Promise<void>, heard: unknown): Promise<unknown> {
  const cause: unknown = await done.catch((why: unknown) => why);
  return cause instanceof DOMException && cause.name !== 'AbortError' ? cause : heard;
}

/** Has a signal abort a transaction, as long as it is not committed. */
function abortedBy(
  signal: AbortSignal | undefined,
  transaction: { readonly done: Promise<void>; abort(): void },
): void {
  // who waits for the transaction hears of it by the requests in it
  transaction.done.catch(() => undefined);
  signal?.addEventListener('abort', () => {
    try {
      transaction.abort();
    } catch {
      // It has ended already.
    }
  });
}

/** As `save`, for a page that goes: nothing is read, and the transaction is committed at once. */
export function saveAtOnce(db: Database, holder: Holder, last: Kept | null, next: Kept): void {
  const transaction = db.transaction(PROJECT_STORES, 'readwrite', { durability: 'strict' });
  write(transaction, holder, last, next).catch(() => undefined);
  transaction.commit();
}

const AT_ONCE = { ahead: null, inSlices: false };

type Writing = IDBPTransaction<Schema, typeof PROJECT_STORES, 'readwrite'>;

async function write(
  transaction: Writing,
  holder: Holder,
  last: Kept | null,
  next: Kept,
  { ahead, inSlices }: { readonly ahead: Snapshot | null; readonly inSlices: boolean } = AT_ONCE,
): Promise<Written> {
  const id = next.snapshot.project.id;
  const { head, written, removed } = changesBetween(ahead ?? last?.snapshot ?? null, next.snapshot);
  const work: Promise<unknown>[] = [];
  const pieces = transaction.objectStore('pieces');
  const blobs = transaction.objectStore('blobs');
  if (!last && !ahead) work.push(pieces.delete(keysOf(id)), blobs.delete(keysOf(id)));
  for (const [i, piece] of written.entries()) {
    const { value, blob } = stow(piece, next.bytes);
    if (blob) work.push(blobs.put(blob[1], [id, blob[0]]));
    const stored = { project: id, key: piece.key, value: textOf(piece.key, value) };
    // Where one of thousands fails, the transaction says so. At the end of a slice the page has a turn; it goes on when that piece is there.
    if (inSlices && i % PIECES_A_SLICE === PIECES_A_SLICE - 1)
      await Promise.all([...work.splice(0), pieces.put(stored)]);
    else unwrap(pieces).put(stored);
  }
  work.push(...removed.map((key) => pieces.delete([id, key])));
  if (last)
    work.push(
      ...unusedBlobs(last.snapshot, next.snapshot, [...written.map((p) => p.key), ...removed]).map((sha) =>
        blobs.delete([id, sha]),
      ),
    );
  if (head ?? ahead)
    work.push(transaction.objectStore('heads').put({ id, head: head ?? headWithLists(next.snapshot) }));
  if (last?.bench !== next.bench) work.push(transaction.objectStore('benches').put(next.bench, id));
  if (last?.picture !== next.picture) work.push(transaction.objectStore('pictures').put(next.picture, id));
  if (!last || !sameRecord(last.record, next.record))
    work.push(transaction.objectStore('projects').put(next.record));
  const edited = last?.snapshot !== next.snapshot;
  const revision = edited ? holder.revision + 1 : holder.revision;
  if (edited) work.push(transaction.objectStore('holders').put({ token: holder.token, revision }, id));
  await Promise.all([...work, transaction.done]);
  return { revision, head: head !== null, written: written.map(({ key }) => key), removed };
}

/** So many pieces are read or written before the page gets a turn: a few milliseconds. */
const PIECES_A_SLICE = 150;

/** Between pieces that are written ahead the page does what waits, but not for longer than so many milliseconds. */
const LONGEST_PAUSE = 20;

/** Lets the page do what waits. */
function pause(): Promise<void> {
  return new Promise((done) => setTimeout(done));
}

/**
 * Writes all pieces of a project that is new here, some at a time, so that a big one stops nothing. Without its head, which the
 * save after it writes, they are no project yet. Gives the snapshot whose pieces lie there; null where there is a project. `giveUp` as
 * for `save`.
 */
export async function savePiecesAhead(
  db: Database,
  next: Kept,
  giveUp?: AbortSignal,
): Promise<Snapshot | null> {
  const id = next.snapshot.project.id;
  if ((await db.getKey('heads', id)) !== undefined) return null;
  const { written } = changesBetween(null, next.snapshot);
  for (let i = 0; i < written.length; i += PIECES_A_SLICE) {
    giveUp?.throwIfAborted();
    const transaction = db.transaction(['pieces', 'blobs'], 'readwrite');
    abortedBy(giveUp, transaction);
    // Who waits for the transaction need not wait for each of thousands of requests.
    const pieces = unwrap(transaction.objectStore('pieces'));
    const blobs = unwrap(transaction.objectStore('blobs'));
    if (i === 0) pieces.delete(keysOf(id));
    for (const piece of written.slice(i, i + PIECES_A_SLICE)) {
      const { value, blob } = stow(piece, next.bytes);
      pieces.put({ project: id, key: piece.key, value: textOf(piece.key, value) });
      if (blob) blobs.put(blob[1], [id, blob[0]]);
    }
    await transaction.done;
    await new Promise<void>((done) => whenIdle(done, LONGEST_PAUSE));
  }
  return next.snapshot;
}

function sameRecord(a: KeptRecord, b: KeptRecord): boolean {
  return a.name === b.name && a.rate === b.rate && a.changed === b.changed && a.loose === b.loose;
}

const NO_BYTES: AssetBytes = new Map();

/** Bytes that only pieces named which are gone or have others now. */
function unusedBlobs(last: Snapshot, next: Snapshot, changed: readonly string[]): readonly string[] {
  const touched = changed.filter(mayHaveBlob);
  if (touched.length === 0) return [];
  const before = piecesByKey(last, touched);
  const gone = [...before].flatMap(
    ([key, value]) => blobNamed(key, stow({ key, value }, NO_BYTES).value) ?? [],
  );
  if (gone.length === 0) return [];
  const used = new Set(
    [
      ...next.project.assets.map((value) => ({ key: `assets:${value.id}`, value })),
      ...next.project.poses.map((value) => ({ key: `poses:${value.id}`, value })),
    ].map((piece) => blobNamed(piece.key, stow(piece, NO_BYTES).value)),
  );
  return gone.filter((sha) => !used.has(sha));
}

/** What is stored of a project; `claim` also makes a tab its holder, so that nothing older can write after what was read. */
export interface Loaded extends Kept {
  readonly revision: number;
}

export async function load(
  db: Database,
  id: string,
  claim?: string,
  breath: (share: number) => Promise<void> = pause,
): Promise<Loaded | null> {
  const transaction = db.transaction(PROJECT_STORES, claim === undefined ? 'readonly' : 'readwrite');
  const [record, head, bench, picture, holder, stored, blobKeys, blobs] = await Promise.all([
    transaction.objectStore('projects').get(id),
    transaction.objectStore('heads').get(id),
    transaction.objectStore('benches').get(id),
    transaction.objectStore('pictures').get(id),
    transaction.objectStore('holders').get(id),
    transaction.objectStore('pieces').getAll(keysOf(id)),
    transaction.objectStore('blobs').getAllKeys(keysOf(id)),
    transaction.objectStore('blobs').getAll(keysOf(id)),
  ]);
  const revision = holder?.revision ?? 0;
  if (claim !== undefined && head)
    await transaction.objectStore('holders').put?.({ token: claim, revision }, id);
  await transaction.done;
  if (!head || !record) return null;
  const all = new Map(blobKeys.map((key, i) => [key[1], blobs[i]!]));
  const bytes = new Map<string, Uint8Array>();
  const pieces = new Map<string, unknown>();
  for (const [i, { key, value }] of stored.entries()) {
    pieces.set(key, unstow(key, itemOf(key, value), all, bytes));
    if (i % PIECES_A_SLICE === PIECES_A_SLICE - 1) await breath(i / stored.length);
  }
  const snapshot = joinPieces(head.head, pieces);
  return snapshot && { snapshot, record, bench, picture: picture ?? '', bytes, revision };
}

/**
 * The snapshot that a following tab has, with the pieces that a save wrote in place of its own; null where it missed a save
 * between and has to read all. What did not change stays the very same object; bytes that came are added to those it has.
 */
export async function loadChanges(
  db: Database,
  id: string,
  have: Pick<Loaded, 'snapshot' | 'revision' | 'bytes'>,
  { revision, head, written, removed }: Written,
): Promise<Snapshot | null> {
  if (revision !== have.revision + 1) return null;
  const transaction = db.transaction(PROJECT_STORES);
  const [holder, stored, newHead] = await Promise.all([
    transaction.objectStore('holders').get(id),
    Promise.all(written.map((key) => transaction.objectStore('pieces').get([id, key]))),
    head ? transaction.objectStore('heads').get(id) : undefined,
  ]);
  const read = stored.flatMap((piece) =>
    piece ? [{ key: piece.key, value: itemOf(piece.key, piece.value) }] : [],
  );
  const named = read.flatMap(({ key, value }) => blobNamed(key, value) ?? []);
  const blobs = new Map<string, Uint8Array>();
  for (const sha of named) {
    const bytes = await transaction.objectStore('blobs').get([id, sha]);
    if (bytes) blobs.set(sha, bytes);
  }
  await transaction.done;
  if (holder?.revision !== revision) return null;
  const changed = read.map(({ key, value }) => ({ key, value: unstow(key, value, blobs, have.bytes) }));
  return withChanges(have.snapshot, { head: newHead?.head ?? null, written: changed, removed });
}
