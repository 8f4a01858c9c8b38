import type { Snapshot } from '../state/document';
import { keysOf, PROJECT_STORES, type Database, type Holder, type KeptRecord } from './database';
import { changesBetween, headWithLists, joinPieces, piecesByKey, type Head } from './pieces';
import { blobNamed, stow, unstow } from './stowed';

/** All that is kept of an open project. */
export interface Kept {
  readonly snapshot: Snapshot;
  readonly record: KeptRecord;
  readonly bench: unknown;
  readonly picture: string;
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
 * still there: where it was removed or the storage was cleared, the whole project is written again.
 */
export async function save(
  db: Database,
  holder: Holder,
  last: Kept | null,
  next: Kept,
): Promise<{ readonly written: Written; readonly again: boolean }> {
  const transaction = db.transaction(PROJECT_STORES, 'readwrite', { durability: 'strict' });
  const id = next.snapshot.project.id;
  const [known, head] = await Promise.all([
    transaction.objectStore('holders').get(id),
    transaction.objectStore('heads').getKey(id),
  ]);
  if (known && known.token !== holder.token && known.token !== NOBODY) {
    transaction.abort();
    await transaction.done.catch(() => undefined);
    throw new NotHeld();
  }
  try {
    const again = head === undefined && last !== null;
    return { written: await write(transaction, holder, again ? null : last, next), again };
  } catch (error) {
    try {
      transaction.abort();
    } catch {
      // It has ended already.
    }
    await transaction.done.catch(() => undefined);
    throw error;
  }
}

/** As `save`, for a page that goes: nothing is read, and the transaction is committed at once. */
export function saveAtOnce(db: Database, holder: Holder, last: Kept | null, next: Kept): void {
  const transaction = db.transaction(PROJECT_STORES, 'readwrite', { durability: 'strict' });
  write(transaction, holder, last, next).catch(() => undefined);
  transaction.commit();
}

type Writing = ReturnType<typeof writing>;
function writing(db: Database) {
  return db.transaction(PROJECT_STORES, 'readwrite');
}

async function write(transaction: Writing, holder: Holder, last: Kept | null, next: Kept): Promise<Written> {
  const id = next.snapshot.project.id;
  const { head, written, removed } = changesBetween(last?.snapshot ?? null, next.snapshot);
  const work: Promise<unknown>[] = [];
  const pieces = transaction.objectStore('pieces');
  const blobs = transaction.objectStore('blobs');
  if (!last) work.push(pieces.delete(keysOf(id)), blobs.delete(keysOf(id)));
  for (const piece of written) {
    const { value, blob } = stow(piece);
    work.push(pieces.put({ project: id, key: piece.key, value }));
    if (blob) work.push(blobs.put(blob[1], [id, blob[0]]));
  }
  work.push(...removed.map((key) => pieces.delete([id, key])));
  if (last)
    work.push(
      ...unusedBlobs(last.snapshot, next.snapshot, [...written.map((p) => p.key), ...removed]).map((sha) =>
        blobs.delete([id, sha]),
      ),
    );
  if (head) work.push(transaction.objectStore('heads').put({ id, head }));
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

function sameRecord(a: KeptRecord, b: KeptRecord): boolean {
  return a.name === b.name && a.rate === b.rate && a.changed === b.changed && a.loose === b.loose;
}

/** Bytes that only pieces named which are gone or have others now. */
function unusedBlobs(last: Snapshot, next: Snapshot, touched: readonly string[]): readonly string[] {
  const before = piecesByKey(last, touched);
  const gone = [...before].flatMap(([key, value]) => blobNamed(key, stow({ key, value }).value) ?? []);
  if (gone.length === 0) return [];
  const used = new Set(
    [
      ...next.project.assets.map((value) => ({ key: `assets:${value.id}`, value })),
      ...next.project.poses.map((value) => ({ key: `poses:${value.id}`, value })),
    ].map((piece) => blobNamed(piece.key, stow(piece).value)),
  );
  return gone.filter((sha) => !used.has(sha));
}

/** What is stored of a project; `claim` also makes a tab its holder, so that nothing older can write after what was read. */
export interface Loaded extends Kept {
  readonly revision: number;
}

export async function load(db: Database, id: string, claim?: string): Promise<Loaded | null> {
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
  const bytes = new Map(blobKeys.map((key, i) => [key[1], blobs[i]!]));
  const pieces = new Map(stored.map(({ key, value }) => [key, unstow(key, value, bytes)]));
  const snapshot = joinPieces(head.head, pieces);
  return snapshot && { snapshot, record, bench, picture: picture ?? '', revision };
}

/**
 * The snapshot that a following tab has, with the pieces that a save wrote in place of its own; null where it missed a save
 * between and has to read all. What did not change stays the very same object.
 */
export async function loadChanges(
  db: Database,
  id: string,
  have: { readonly snapshot: Snapshot; readonly revision: number },
  { revision, head, written, removed }: Written,
): Promise<Snapshot | null> {
  if (revision !== have.revision + 1) return null;
  const transaction = db.transaction(PROJECT_STORES);
  const [holder, stored, newHead] = await Promise.all([
    transaction.objectStore('holders').get(id),
    Promise.all(written.map((key) => transaction.objectStore('pieces').get([id, key]))),
    head ? transaction.objectStore('heads').get(id) : undefined,
  ]);
  const named = stored.flatMap((piece) => (piece && blobNamed(piece.key, piece.value)) ?? []);
  const blobs = new Map<string, Uint8Array>();
  for (const sha of named) {
    const bytes = await transaction.objectStore('blobs').get([id, sha]);
    if (bytes) blobs.set(sha, bytes);
  }
  await transaction.done;
  if (holder?.revision !== revision) return null;
  const pieces = piecesByKey(have.snapshot);
  for (const key of removed) pieces.delete(key);
  for (const piece of stored) if (piece) pieces.set(piece.key, unstow(piece.key, piece.value, blobs));
  const order: Head = newHead?.head ?? headWithLists(have.snapshot);
  return joinPieces(order, pieces);
}
