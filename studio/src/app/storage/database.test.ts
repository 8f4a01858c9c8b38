import 'fake-indexeddb/auto';
import { assetsBeside, assetsWithin, moveKeys, removeParts, writeProject, type Project } from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import type { Snapshot } from '../state/document';
import { deleteDB, openDB } from 'idb';
import { Connection, UnusableStorage } from './connection';
import { DATABASE_VERSION, listKept, openDatabase, removeProject, type Database } from './database';
import { load, loadChanges, NotHeld, save, savePiecesAhead, type Kept } from './save';

const project = chartProject();
const bench = { version: 1, bench: { frame: 7 } };
const kept = (snapshot: Snapshot, picture = '', bytes: Kept['bytes'] = new Map()): Kept => {
  const { id, name } = snapshot.project;
  const record = { id, name, rate: '24 fps', changed: 1, loose: 0 };
  return { snapshot, record, bench, picture, bytes };
};
const snapshot = (of: Project, loose: Snapshot['loose'] = []): Snapshot => ({ project: of, loose });
const crane = {
  id: 'crane',
  name: 'crane.glb',
  type: 'model/gltf-binary',
  sha256: 'a'.repeat(64),
  uri: 'data:model/gltf-binary;base64,S2FpemVu',
};
let count = 0;
const fresh = () => openDatabase(`test-${count++}`);
const me = (revision = 0) => ({ token: 'me', revision });
const loaded = async (db: Database, id = 'p') => (await load(db, id))?.snapshot ?? null;

describe('what the browser keeps', () => {
  it('comes back as it was, with the Bench, the loose edits and the picture', async () => {
    const db = await fresh();
    const loose = [{ channel: 'wagon/translate.y', frame: 3, value: 2, was: 0 }];
    const all = kept(snapshot(project, loose), 'data:image/png;base64,AA==');
    await save(db, me(), null, all);
    expect(await load(db, 'p')).toEqual({ ...all, revision: 1 });
    expect(await load(db, 'other')).toBeNull();
    expect(await listKept(db)).toEqual([{ ...all.record, picture: all.picture }]);
  });

  it('is not there at all where a big save is given up between its slices', async () => {
    const db = await fresh();
    const parts = Array.from({ length: 400 }, (_, i) => ({ ...project.parts[0]!, id: `part-${i}` }));
    const giveUp = new AbortController();
    const saving = save(db, me(), null, kept(snapshot({ ...project, parts })), null, giveUp.signal);
    setTimeout(() => giveUp.abort());
    await expect(saving).rejects.toThrow();
    expect([await db.count('pieces'), await db.count('heads')]).toEqual([0, 0]);
  });

  it('is written by pieces: after an edit of one curve only that curve, after a choice only the Bench', async () => {
    const db = await fresh();
    const first = kept(snapshot(project));
    await save(db, me(), null, first);
    const moved = moveKeys(project, [{ channel: 'wagon/translate.x', frame: 24 }], {
      frames: 1,
      value: 0,
    }).project;
    const next = { ...first, snapshot: snapshot(moved, first.snapshot.loose) };
    for (const store of ['pieces', 'projects', 'benches', 'pictures'] as const) await db.clear(store);
    await save(db, me(1), first, next);
    expect((await db.getAll('pieces')).map((piece) => piece.key)).toEqual(['curves:main/wagon/translate.x']);
    expect(await db.count('projects')).toBe(0);
    expect(await db.count('benches')).toBe(0);
    await db.clear('pieces');
    await save(db, me(2), next, { ...next, bench: { version: 1, bench: { frame: 8 } } });
    expect(await db.count('pieces')).toBe(0);
    expect(await db.count('projects')).toBe(0);
    expect(await db.get('holders', 'p')).toEqual(me(2));
    expect(await db.count('benches')).toBe(1);
  });

  it('follows any edits: pieces that went are gone, orders hold', async () => {
    const db = await fresh();
    const first = kept(snapshot(project));
    await save(db, me(), null, first);
    const second = kept(snapshot(removeParts(project, ['hook'])));
    await save(db, me(1), first, second);
    const parts = [...second.snapshot.project.parts].reverse();
    const third = kept(snapshot({ ...second.snapshot.project, name: 'Renamed', parts }));
    await save(db, me(2), second, third);
    expect(await loaded(db)).toEqual(third.snapshot);
    expect((await db.getAll('pieces')).some((piece) => piece.key.includes('hook'))).toBe(false);
  });

  it('is removed without a trace, and only it', async () => {
    const db = await fresh();
    const other = { ...project, id: 'p2' };
    await save(db, me(), null, kept(snapshot(project)));
    await save(db, me(), null, kept(snapshot(other)));
    await removeProject(db, 'p');
    expect(await loaded(db)).toBeNull();
    expect((await loaded(db, 'p2'))!.project).toEqual(other);
    expect((await db.getAll('pieces')).every((piece) => piece.project === 'p2')).toBe(true);
    expect((await listKept(db)).map(({ id }) => id)).toEqual(['p2']);
  });

  it('is all of a save or nothing: where a write fails, what was there stays', async () => {
    const db = await fresh();
    const first = kept(snapshot(project));
    await save(db, me(), null, first);
    const unwritable = { ...project, name: (() => 'no data') as unknown as string };
    await expect(save(db, me(1), first, kept(snapshot(unwritable)))).rejects.toThrow();
    expect(await loaded(db)).toEqual(first.snapshot);
  });

  it('is written only by the tab that holds the project', async () => {
    const db = await fresh();
    const first = kept(snapshot(project));
    await save(db, me(), null, first);
    await load(db, 'p', 'another');
    const next = kept(snapshot({ ...project, name: 'Too late' }));
    await expect(save(db, me(1), first, next)).rejects.toThrow(NotHeld);
    expect((await loaded(db))!.project.name).toBe(project.name);
  });

  it('stays as it was where a save is given up before it is committed', async () => {
    const db = await fresh();
    const first = kept(snapshot(project));
    await save(db, me(), null, first);
    const giveUp = new AbortController();
    const next = kept(snapshot({ ...project, name: 'Later' }));
    const saving = save(db, me(1), first, next, null, giveUp.signal);
    giveUp.abort();
    await expect(saving).rejects.toThrow();
    expect((await loaded(db))!.project.name).toBe(project.name);
    await expect(
      savePiecesAhead(db, kept(snapshot({ ...project, id: 'q' })), giveUp.signal),
    ).rejects.toThrow();
    expect(await loaded(db, 'q')).toBeNull();
  });

  it('is written whole again where the storage was cleared meanwhile', async () => {
    const db = await fresh();
    const first = kept(snapshot(project));
    await save(db, me(), null, first);
    await removeProject(db, 'p');
    const next = kept(snapshot({ ...project, name: 'Still here' }, first.snapshot.loose));
    await save(db, me(1), first, next);
    expect(await loaded(db)).toEqual(next.snapshot);
  });

  it('has models as bytes by their hash, once, and gives the same file text back', async () => {
    const db = await fresh();
    const withModel: Project = { ...project, assets: [crane] };
    const first = kept(snapshot(withModel));
    await save(db, me(), null, first);
    expect(await db.count('blobs')).toBe(1);
    expect(JSON.stringify(await db.getAll('pieces'))).not.toContain('S2FpemVu');
    const back = (await load(db, 'p'))!;
    const { project: named } = back.snapshot;
    expect(named.assets[0]!.uri).toMatch(/^sha256:[0-9a-f]{64}$/);
    expect(writeProject(assetsWithin(named, back.bytes))).toBe(writeProject(withModel));
    const renamed = kept(snapshot({ ...withModel, assets: [{ ...crane, name: 'jib.glb' }] }));
    await save(db, me(1), first, renamed);
    expect((await loaded(db))!.project.assets[0]!.name).toBe('jib.glb');
    await save(db, me(2), renamed, kept(snapshot(project)));
    expect(await db.count('blobs')).toBe(0);
  });

  it('has pictures of poses as bytes too, whether the project names them or has them in it', async () => {
    const picture = 'data:image/jpeg;base64,AwEE';
    const withPose: Project = { ...project, poses: [{ id: 'up', name: 'Up', values: {}, picture }] };
    const { project: named, bytes } = assetsBeside(withPose);
    for (const first of [kept(snapshot(withPose)), kept(snapshot(named), '', new Map(bytes))]) {
      const db = await fresh();
      await save(db, me(), null, first);
      expect(JSON.stringify(await db.getAll('pieces'))).not.toContain('AwEE');
      expect(await db.getAll('blobs')).toEqual([...bytes.values()]);
      const back = (await load(db, 'p'))!;
      expect(back.snapshot.project.poses).toEqual(named.poses);
      expect(writeProject(assetsWithin(back.snapshot.project, back.bytes))).toBe(writeProject(withPose));
    }
  });

  it('has a model that the project only names by the very bytes, and a tab that follows gets them', async () => {
    const db = await fresh();
    const first = kept(snapshot(project));
    await save(db, me(), null, first);
    const follower = (await load(db, 'p'))!;
    const { project: named, bytes } = assetsBeside({ ...project, assets: [crane] });
    const { written } = await save(db, me(1), first, kept(snapshot(named), '', new Map(bytes)));
    expect(await db.getAll('blobs')).toEqual([...bytes.values()]);
    const followed = (await loadChanges(db, 'p', follower, written!))!;
    expect(followed.project.assets).toEqual(named.assets);
    expect(follower.bytes).toEqual(new Map(bytes));
    await db.clear('blobs');
    const without = (await load(db, 'p'))!;
    expect([without.snapshot.project.assets, without.bytes.size]).toEqual([named.assets, 0]);
  });
});

describe('a following tab', () => {
  it('takes over the pieces that a save wrote, and everything else stays the very same', async () => {
    const db = await fresh();
    const first = kept(snapshot(project));
    await save(db, me(), null, first);
    const mine = (await load(db, 'p'))!;
    const moved = moveKeys(project, [{ channel: 'wagon/translate.x', frame: 24 }], {
      frames: 1,
      value: 0,
    }).project;
    const { written } = await save(db, me(1), first, kept(snapshot(moved, first.snapshot.loose)));
    const followed = (await loadChanges(db, 'p', mine, written!))!;
    expect(followed).toEqual(snapshot(moved));
    expect(followed.project.parts[0]).toBe(mine.snapshot.project.parts[0]);
    expect(await loadChanges(db, 'p', { ...mine, revision: 0 }, written!)).toBeNull();
  });
});

describe('the storage', () => {
  it('of the first version is brought to this one, pictures and all', async () => {
    const name = `old-${count++}`;
    const old = await openDB(name, 1, {
      upgrade: (db) => {
        db.createObjectStore('projects', { keyPath: 'id' });
        db.createObjectStore('heads', { keyPath: 'id' });
        db.createObjectStore('benches');
        db.createObjectStore('pieces', { keyPath: ['project', 'key'] });
        db.createObjectStore('settings');
      },
    });
    await old.put('projects', {
      id: 'p',
      name: 'P',
      rate: '24 fps',
      changed: 3,
      loose: 0,
      picture: 'data:x',
    });
    old.close();
    const db = await openDatabase(name);
    expect(await listKept(db)).toEqual([
      { id: 'p', name: 'P', rate: '24 fps', changed: 3, loose: 0, picture: 'data:x' },
    ]);
    expect(Object.keys((await db.getAll('projects'))[0]!)).not.toContain('picture');
  });

  it('of a newer Kaizen is left alone, and that is said', async () => {
    const name = `newer-${count++}`;
    (await openDB(name, DATABASE_VERSION + 1)).close();
    const said: string[] = [];
    const connection = new Connection((why) => said.push(why), undefined, name);
    await expect(connection.get()).rejects.toThrow(UnusableStorage);
    await expect(connection.get()).rejects.toThrow(/newer Kaizen/);
    expect(said).toEqual(['newer']);
  });

  it('is given way to a newer Kaizen in another tab, after a last chance to write', async () => {
    const name = `way-${count++}`;
    const said: string[] = [];
    const connection = new Connection(
      (why) => said.push(why),
      () => said.push('last chance'),
      name,
    );
    await connection.get();
    (await openDB(name, DATABASE_VERSION + 1)).close();
    expect(said).toEqual(['last chance', 'given-way']);
    await expect(connection.get()).rejects.toThrow(/another tab/);
    await deleteDB(name);
  });
});
