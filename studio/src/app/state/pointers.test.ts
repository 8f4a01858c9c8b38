import '@angular/compiler';
import {
  changeRateKeepingSeconds,
  curveOf,
  deleteKeys,
  moveKeys,
  openGap,
  push,
  removeParts,
  type KeyRef,
} from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import { studioAlone } from '../testing/small-store';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const ref = (frame: number, channel = RUN): KeyRef => ({ channel, frame });

function setUp() {
  const studio = studioAlone();
  studio.open({ project: chartProject(), loose: [] }, false);
  return studio;
}

describe('what points into the project', () => {
  it('goes along with an edit: chosen keys, handles, loose edits, Stakes', () => {
    const studio = setUp();
    studio.edit(
      'wait',
      (same) => same,
      () => [{ channel: RUN, frame: 30, value: 1, was: 0 }],
    );
    studio.pick({ keys: [ref(24), ref(48)], handles: [{ ...ref(24), side: 'in' }] });
    studio.set({
      stakes: [
        { from: 10, to: 12 },
        { from: 40, to: 40 },
      ],
    });
    studio.edit('Open a gap', (project) => openGap(project, [RUN], 20, 6));
    expect(studio.bench().keys).toEqual([ref(30), ref(54)]);
    expect(studio.bench().handles).toEqual([{ ...ref(30), side: 'in' }]);
    expect(studio.loose()[0]!.frame).toBe(36);
    expect(studio.bench().stakes).toEqual([
      { from: 10, to: 12 },
      { from: 46, to: 46 },
    ]);
  });

  it('a loose edit goes along where its channel is called anew, and goes with a channel that goes', () => {
    const studio = setUp();
    studio.edit(
      'wait',
      (same) => same,
      () => [{ channel: RUN, frame: 24, value: 1, was: 0 }],
    );
    studio.edit('Rename', (project) => ({
      project: { ...project, name: 'Other' },
      mapping: { curve: (name: string) => (name === RUN ? LIFT : name) },
    }));
    expect(studio.loose()).toMatchObject([{ channel: LIFT, frame: 24 }]);
    studio.edit('Remove', (project) => ({
      project: { ...project, name: 'Third' },
      mapping: { curve: (name: string) => (name === LIFT ? null : name) },
    }));
    expect(studio.loose()).toEqual([]);
    studio.undo();
    expect(studio.loose()).toHaveLength(1);
  });

  it('a loose edit that would land on another stays where it is', () => {
    const studio = setUp();
    const waiting = [24, 30].map((frame) => ({ channel: RUN, frame, value: 1, was: 0 }));
    studio.edit(
      'wait',
      (same) => same,
      () => waiting,
    );
    studio.edit('Move', (project) => moveKeys(project, [ref(24)], { frames: 6, value: 0 }));
    expect(studio.loose().map(({ frame }) => frame)).toEqual([24, 30]);
  });

  it('at another rate stands at the same seconds', () => {
    const studio = setUp();
    studio.pick({ keys: [ref(24)] });
    studio.set({ held: { on: true, released: { start: 12, end: 24 } } });
    studio.edit('Rate', (project) => changeRateKeepingSeconds(project, { frames: 48, per: 1 }));
    expect(studio.bench().keys).toEqual([ref(48)]);
    expect(studio.bench().held.released).toEqual({ start: 24, end: 48 });
  });

  it('lets go of what went, and keeps what is locked', () => {
    const studio = setUp();
    studio.pick({ parts: ['hook'], channels: [LIFT, RUN], keys: [ref(24), ref(36, LIFT)] });
    studio.set({ pinned: [LIFT], only: LIFT });
    studio.edit('Remove', (project) => removeParts(project, ['hook']));
    const { parts, channels, keys, pinned, only } = studio.bench();
    expect({ parts, channels, keys, pinned, only }).toEqual({
      parts: [],
      channels: [RUN],
      keys: [ref(24)],
      pinned: [],
      only: null,
    });
  });
});

describe('undo', () => {
  it('brings the selection of before the edit back, redo the one of after', () => {
    const studio = setUp();
    studio.pick({ channels: [RUN], keys: [ref(24), ref(48)] });
    studio.edit('Delete', (project) => deleteKeys(project, [ref(24)]));
    expect(studio.bench().keys).toEqual([ref(48)]);
    studio.pick({ channels: [LIFT], keys: [] });
    studio.undo();
    expect(studio.bench()).toMatchObject({ channels: [RUN], keys: [ref(24), ref(48)] });
    studio.redo();
    expect(studio.bench()).toMatchObject({ channels: [LIFT], keys: [] });
    studio.undo();
    expect(studio.bench().keys).toEqual([ref(24), ref(48)]);
    expect(curveOf(studio.project()!, RUN)!.keys).toHaveLength(3);
  });

  it('leaves Stakes that were set since alone, and puts those back that an edit moved', () => {
    const studio = setUp();
    const stakes = [
      { from: 30, to: 30 },
      { from: 40, to: 44 },
    ];
    studio.set({ stakes });
    studio.edit('Push', (project) => push(project, [RUN], 20, 10, 'after'));
    expect(studio.bench().stakes[0]).toEqual({ from: 40, to: 40 });
    studio.undo();
    expect(studio.bench().stakes).toBe(stakes);
    studio.redo();
    studio.set({ stakes: [] });
    studio.undo();
    expect(studio.bench().stakes).toEqual([]);
  });
});

describe('a follower', () => {
  it('changes nothing', () => {
    const studio = setUp();
    studio.setReadOnly(true);
    const before = studio.project();
    studio.edit('Move', (project) => moveKeys(project, [ref(24)], { frames: 6, value: 0 }));
    studio.undo();
    expect(studio.project()).toBe(before);
  });
});
