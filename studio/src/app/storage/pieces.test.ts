import 'fake-indexeddb/auto';
import fc from 'fast-check';
import {
  deleteKeys,
  keyValues,
  newProject,
  changePart,
  DEFAULT_PART,
  type Part,
  type Project,
} from '@kaizen/core';
import type { Snapshot } from '../state/document';
import { openDatabase, removeProject } from './database';
import { load, save, type Kept } from './save';
import { changesBetween } from './pieces';

const part = (id: string): Part => ({ ...DEFAULT_PART, id, name: id, kind: 'group' }) as unknown as Part;
const start: Snapshot = {
  project: { ...newProject('p', 'P'), parts: [part('a'), part('b')] },
  loose: [],
};
const kept = (snapshot: Snapshot, frame = 0): Kept => ({
  snapshot,
  record: { id: 'p', name: 'P', rate: '24 fps', changed: 1, loose: 0 },
  bench: { frame },
  picture: '',
  bytes: new Map(),
});
const key = (project: Project, frame: number, channel = 'a/translate.x') =>
  keyValues(project, [{ channel, frame, value: frame }]);

describe('pieces of a project', () => {
  it('writes only what is another object than before', () => {
    const first = { ...start, project: key(key(start.project, 1), 1, 'b/translate.x') };
    const second = { ...first, project: key(first.project, 5) };
    const { written, removed } = changesBetween(first, second);
    expect(written.map((piece) => piece.key)).toEqual(['curves:main/a/translate.x']);
    expect(removed).toEqual([]);
    const renamed = { ...second, project: changePart(second.project, 'b', (p) => ({ ...p, name: 'New' })) };
    expect(changesBetween(second, renamed).written.map((piece) => piece.key)).toEqual(['parts:b']);
  });

  it('removes what is no longer there', () => {
    const keyed = { ...start, project: key(start.project, 1) };
    const emptied = {
      ...keyed,
      project: deleteKeys(keyed.project, [{ channel: 'a/translate.x', frame: 1 }]),
    };
    expect(changesBetween(keyed, emptied).removed).toEqual(['curves:main/a/translate.x']);
  });

  it('after any edits the store gives back the very project, and its loose edits', async () => {
    const edit = fc.record({
      channel: fc.constantFrom('a/translate.x', 'a/rotate.y', 'b/scale.z'),
      frame: fc.integer({ min: 0, max: 6 }),
      remove: fc.boolean(),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(edit, { maxLength: 12 }), async (edits) => {
        const db = await openDatabase(`test-${Math.random()}`);
        let last: Kept | null = null;
        let now = start;
        const holder = { token: 'me', revision: 0 };
        for (const { channel, frame, remove } of edits) {
          const next = kept(now, frame);
          await save(db, holder, last, next);
          last = next;
          const project = remove
            ? deleteKeys(now.project, [{ channel, frame }])
            : key(now.project, frame, channel);
          now = { project, loose: [{ channel, frame, value: 1, was: 0 }] };
        }
        await save(db, holder, last, kept(now, 9));
        expect(await load(db, 'p')).toMatchObject({ snapshot: now, bench: { frame: 9 } });
        await removeProject(db, 'p');
        expect(await load(db, 'p')).toBeNull();
        expect(await db.count('pieces')).toBe(0);
        db.close();
      }),
      { numRuns: 25 },
    );
  });

  it('a project with a missing piece is not opened half', async () => {
    const db = await openDatabase('broken');
    await save(db, { token: 'me', revision: 0 }, null, kept(start));
    await db.delete('pieces', ['p', 'parts:a']);
    expect(await load(db, 'p')).toBeNull();
    db.close();
  });
});
