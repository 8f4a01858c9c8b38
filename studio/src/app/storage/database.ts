import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Snapshot } from '../state/document';
import { changesBetween, joinPieces, type Head } from './pieces';

/** What the Projects page shows of a kept project. */
export interface KeptProject {
  readonly id: string;
  readonly name: string;
  readonly rate: string;
  readonly changed: number;
  readonly loose: number;
  /** A small picture, as a data URI; empty until the Bench has drawn one. */
  readonly picture: string;
}

interface Schema extends DBSchema {
  projects: { key: string; value: KeptProject };
  heads: { key: string; value: { readonly id: string; readonly head: Head } };
  benches: { key: string; value: unknown };
  pieces: {
    key: [string, string];
    value: { readonly project: string; readonly key: string; readonly value: unknown };
  };
  settings: { key: string; value: unknown };
}

export const DATABASE_NAME = 'kaizen';

export type Database = IDBPDatabase<Schema>;

export function openDatabase(name = DATABASE_NAME): Promise<Database> {
  return openDB<Schema>(name, 1, {
    upgrade: (db) => {
      db.createObjectStore('projects', { keyPath: 'id' });
      db.createObjectStore('heads', { keyPath: 'id' });
      db.createObjectStore('benches');
      db.createObjectStore('pieces', { keyPath: ['project', 'key'] });
      db.createObjectStore('settings');
    },
  });
}

/** The keys of all pieces of a project: they begin with its id, and a list sorts after any text. */
function piecesOf(id: string): IDBKeyRange {
  return IDBKeyRange.bound([id], [id, []]);
}

/**
 * Writes what changed since `last` in one strict transaction: all of it, or nothing. Strict means on the disk before
 * it counts as done.
 */
export async function saveSnapshot(
  db: Database,
  last: Snapshot | null,
  next: Snapshot,
  kept: KeptProject,
  bench: unknown,
): Promise<void> {
  const { head, written, removed } = changesBetween(last, next);
  const id = next.project.id;
  const transaction = db.transaction(['projects', 'heads', 'benches', 'pieces'], 'readwrite', {
    durability: 'strict',
  });
  const pieces = transaction.objectStore('pieces');
  const work: Promise<unknown>[] = written.map(({ key, value }) => pieces.put({ project: id, key, value }));
  work.push(...removed.map((key) => pieces.delete([id, key])));
  if (head) work.push(transaction.objectStore('heads').put({ id, head }));
  work.push(
    transaction.objectStore('benches').put(bench, id),
    transaction.objectStore('projects').put(kept),
    transaction.done,
  );
  await Promise.all(work);
}

export async function loadSnapshot(
  db: Database,
  id: string,
): Promise<{ readonly snapshot: Snapshot; readonly bench: unknown } | null> {
  const transaction = db.transaction(['heads', 'benches', 'pieces']);
  const [head, bench, pieces] = await Promise.all([
    transaction.objectStore('heads').get(id),
    transaction.objectStore('benches').get(id),
    transaction.objectStore('pieces').getAll(piecesOf(id)),
  ]);
  if (!head) return null;
  const snapshot = joinPieces(head.head, new Map(pieces.map(({ key, value }) => [key, value])));
  return snapshot ? { snapshot, bench } : null;
}

export async function removeProject(db: Database, id: string): Promise<void> {
  const transaction = db.transaction(['projects', 'heads', 'benches', 'pieces'], 'readwrite', {
    durability: 'strict',
  });
  await Promise.all([
    transaction.objectStore('pieces').delete(piecesOf(id)),
    transaction.objectStore('heads').delete(id),
    transaction.objectStore('benches').delete(id),
    transaction.objectStore('projects').delete(id),
    transaction.done,
  ]);
}
