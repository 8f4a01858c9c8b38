import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction, type StoreNames } from 'idb';
import type { Head } from './pieces';

/** What the Projects page shows of a kept project, but its picture, which is a record of its own. */
export interface KeptRecord {
  readonly id: string;
  readonly name: string;
  readonly rate: string;
  readonly changed: number;
  readonly loose: number;
}

/** A kept project with its small picture, a data URI; empty until the Bench has drawn one. */
export interface KeptProject extends KeptRecord {
  readonly picture: string;
}

/** Which tab may write a project: its token, and how often it has written. A tab whose token is not here writes nothing. */
export interface Holder {
  readonly token: string;
  readonly revision: number;
}

export interface Schema extends DBSchema {
  projects: { key: string; value: KeptRecord };
  heads: { key: string; value: { readonly id: string; readonly head: Head } };
  benches: { key: string; value: unknown };
  pieces: {
    key: [string, string];
    value: { readonly project: string; readonly key: string; readonly value: unknown };
  };
  /** Bytes of models, sounds and pictures, by project and SHA-256. */
  blobs: { key: [string, string]; value: Uint8Array };
  pictures: { key: string; value: string };
  holders: { key: string; value: Holder };
  settings: { key: string; value: unknown };
}

export const DATABASE_NAME = 'kaizen';
export const DATABASE_VERSION = 2;
export type Database = IDBPDatabase<Schema>;

/** All that belongs to one project. */
export const PROJECT_STORES = [
  'projects',
  'heads',
  'benches',
  'pieces',
  'blobs',
  'pictures',
  'holders',
] as const satisfies readonly StoreNames<Schema>[];

type Upgrade = IDBPTransaction<Schema, StoreNames<Schema>[], 'versionchange'>;

/** Brings the storage of any older version to this one; nothing that is kept is lost on the way. */
export function upgradeDatabase(db: Database, from: number, _to: number | null, transaction: Upgrade): void {
  if (from < 1) {
    db.createObjectStore('projects', { keyPath: 'id' });
    db.createObjectStore('heads', { keyPath: 'id' });
    db.createObjectStore('benches');
    db.createObjectStore('pieces', { keyPath: ['project', 'key'] });
    db.createObjectStore('settings');
  }
  if (from < 2) {
    db.createObjectStore('blobs');
    db.createObjectStore('pictures');
    db.createObjectStore('holders');
    if (from === 1) void takePicturesOut(transaction);
  }
}

/** Version 1 kept a project's picture in its record, which every save wrote again. */
async function takePicturesOut(transaction: Upgrade): Promise<void> {
  const projects = transaction.objectStore('projects');
  const pictures = transaction.objectStore('pictures');
  for (let cursor = await projects.openCursor(); cursor; cursor = await cursor.continue()) {
    const { picture, ...record } = cursor.value as KeptProject;
    if (picture) await pictures.put(picture, record.id);
    await cursor.update(record);
  }
}

export function openDatabase(name = DATABASE_NAME): Promise<Database> {
  return openDB<Schema>(name, DATABASE_VERSION, { upgrade: upgradeDatabase });
}

/** All keys that begin with a project's id: a list sorts after any text. */
export function keysOf(id: string): IDBKeyRange {
  return IDBKeyRange.bound([id], [id, []]);
}

/** All kept projects, the one changed last first. */
export async function listKept(db: Database): Promise<readonly KeptProject[]> {
  const transaction = db.transaction(['projects', 'pictures']);
  const pictures = transaction.objectStore('pictures');
  const records = await transaction.objectStore('projects').getAll();
  const kept = await Promise.all(
    records.map(async (record) => ({ ...record, picture: (await pictures.get(record.id)) ?? '' })),
  );
  return kept.sort((a, b) => b.changed - a.changed);
}

/** Who holds a project that was removed: a tab that still has it open can tell this from a storage that was cleared. */
export const REMOVED = '(removed)';

export async function removeProject(db: Database, id: string): Promise<void> {
  const transaction = db.transaction(PROJECT_STORES, 'readwrite', { durability: 'strict' });
  await Promise.all([
    transaction.objectStore('pieces').delete(keysOf(id)),
    transaction.objectStore('blobs').delete(keysOf(id)),
    ...(['projects', 'heads', 'benches', 'pictures'] as const).map((store) =>
      transaction.objectStore(store).delete(id),
    ),
    transaction.objectStore('holders').put({ token: REMOVED, revision: 0 }, id),
    transaction.done,
  ]);
}
