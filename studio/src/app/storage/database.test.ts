import 'fake-indexeddb/auto';
import { moveKeys, removeParts, type Project } from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import type { Snapshot } from '../state/document';
import {
  loadSnapshot,
  openDatabase,
  removeProject,
  saveSnapshot,
  type Database,
  type KeptProject,
} from './database';

const project = chartProject();
const kept = (of: Project): KeptProject => ({
  id: of.id,
  name: of.name,
  rate: '24 fps',
  changed: 1,
  loose: 0,
  picture: '',
});
const snapshot = (of: Project, loose: Snapshot['loose'] = []): Snapshot => ({ project: of, loose });
let count = 0;
const fresh = () => openDatabase(`test-${count++}`);

async function save(db: Database, last: Snapshot | null, next: Snapshot): Promise<void> {
  await saveSnapshot(db, last, next, kept(next.project), { frame: 7 });
}

describe('what the browser keeps', () => {
  it('comes back as it was, with the Bench and the loose edits', async () => {
    const db = await fresh();
    const loose = [{ channel: 'wagon/translate.y', frame: 3, value: 2, was: 0 }];
    await save(db, null, snapshot(project, loose));
    expect(await loadSnapshot(db, 'p')).toEqual({ snapshot: snapshot(project, loose), bench: { frame: 7 } });
    expect(await loadSnapshot(db, 'other')).toBeNull();
  });

  it('is written by pieces: after an edit of one curve only that curve', async () => {
    const db = await fresh();
    const first = snapshot(project);
    await save(db, null, first);
    const next = {
      ...first,
      project: moveKeys(project, [{ channel: 'wagon/translate.x', frame: 24 }], { frames: 1, value: 0 }),
    };
    await db.clear('pieces');
    await save(db, first, next);
    expect((await db.getAll('pieces')).map((piece) => piece.key)).toEqual(['curves:main/wagon/translate.x']);
  });

  it('follows any edits: pieces that went are gone, orders hold', async () => {
    const db = await fresh();
    const first = snapshot(project);
    await save(db, null, first);
    const second = snapshot(removeParts(project, ['hook']));
    await save(db, first, second);
    const third = snapshot({
      ...second.project,
      name: 'Renamed',
      parts: [...second.project.parts].reverse(),
    });
    await save(db, second, third);
    expect((await loadSnapshot(db, 'p'))!.snapshot).toEqual(third);
    expect((await db.getAll('pieces')).some((piece) => piece.key.includes('hook'))).toBe(false);
  });

  it('is removed without a trace, and only it', async () => {
    const db = await fresh();
    const other = { ...project, id: 'p2' };
    await save(db, null, snapshot(project));
    await save(db, null, snapshot(other));
    await removeProject(db, 'p');
    expect(await loadSnapshot(db, 'p')).toBeNull();
    expect((await loadSnapshot(db, 'p2'))!.snapshot.project).toEqual(other);
    expect((await db.getAll('pieces')).every((piece) => piece.project === 'p2')).toBe(true);
    expect((await db.getAll('projects')).map(({ id }) => id)).toEqual(['p2']);
  });

  it('is all of a save or nothing: where a write fails, what was there stays', async () => {
    const db = await fresh();
    const first = snapshot(project);
    await save(db, null, first);
    const unwritable = { ...project, name: (() => 'no data') as unknown as string };
    await expect(save(db, first, snapshot(unwritable))).rejects.toThrow();
    expect((await loadSnapshot(db, 'p'))!.snapshot).toEqual(first);
  });
});
