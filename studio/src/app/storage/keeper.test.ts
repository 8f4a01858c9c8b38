import '@angular/compiler';
import 'fake-indexeddb/auto';
import {
  DestroyRef,
  Injector,
  ɵChangeDetectionScheduler,
  ɵEffectScheduler,
  ɵINJECTOR_SCOPE,
} from '@angular/core';
import { newProject, type Project } from '@kaizen/core';
import { Studio } from '../state/studio';
import { FakeBrowser, FakeTab, settle } from '../testing/fake-browser';
import { studioAlone } from '../testing/small-store';
import { Turns } from '../ui/in-turn.directive';
import { openDatabase } from './database';
import { Keeper } from './keeper';
import { LeaveQuestion } from './leave-question';
import { load } from './save';

/** A Keeper in a page that is so slow that no effect has run yet whatever happens; what the page hears is told by hand. */
async function slowPage() {
  const db = await openDatabase();
  const browser = new FakeBrowser(db);
  const { locks, channel } = new FakeTab(browser, 'page').ports;
  const heard = new Map<string, () => void>();
  const globals = {
    navigator: { locks },
    localStorage: browser.pad,
    document: { visibilityState: 'visible' },
    addEventListener: (name: string, run: () => void) => void heard.set(name, run),
    setInterval: () => 0,
    BroadcastChannel: function (name: string) {
      return channel(name);
    },
  };
  for (const [name, value] of Object.entries(globals))
    Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
  const studio = studioAlone();
  const never = { notify: () => undefined, add: () => undefined, remove: () => undefined };
  const injector = Injector.create({
    providers: [
      { provide: ɵINJECTOR_SCOPE, useValue: 'root' },
      { provide: Studio, useValue: studio },
      { provide: Turns, useValue: { take: () => undefined } },
      { provide: LeaveQuestion, useValue: { ask: () => Promise.resolve('stay') } },
      { provide: DestroyRef, useValue: { onDestroy: () => () => undefined } },
      { provide: ɵChangeDetectionScheduler, useValue: { ...never, runningTick: false } },
      { provide: ɵEffectScheduler, useValue: { ...never, schedule: never.add, flush: never.add } },
    ],
  });
  return { db, browser, studio, keeper: injector.get(Keeper), hears: (name: string) => heard.get(name)!() };
}

const renamed = (name: string) => (project: Project) => ({ ...project, name });

test.each(['beforeunload', 'pagehide', 'visibilitychange'])(
  'what was edited in the very moment a page goes is kept (%s)',
  async (goes) => {
    const { db, browser, studio, keeper, hears } = await slowPage();
    const project = newProject(goes, 'Winch');
    await keeper.keepNew({ project, bytes: new Map() }, {});
    await keeper.flush();
    studio.edit('rename', renamed('Winch, the last word'));
    (document as { visibilityState: string }).visibilityState = 'hidden';
    hears(goes);
    expect([...browser.notes.values()].join()).toContain('Winch, the last word');
    await settle();
    expect((await load(db, project.id))?.snapshot.project.name).toBe('Winch, the last word');
    await keeper.close();
    db.close();
  },
);

test('what was edited in the very moment its project is closed is kept', async () => {
  const { db, studio, keeper } = await slowPage();
  const project = newProject('closed', 'Winch');
  await keeper.keepNew({ project, bytes: new Map() }, {});
  studio.edit('rename', renamed('Winch, closed'));
  expect(await keeper.close()).toBe(true);
  expect((await load(db, project.id))?.snapshot.project.name).toBe('Winch, closed');
  db.close();
});

test('a project that is removed in the very moment of an edit is brought back with it', async () => {
  const { db, studio, keeper } = await slowPage();
  const project = newProject('removed', 'Winch');
  await keeper.keepNew({ project, bytes: new Map() }, {});
  studio.edit('rename', renamed('Winch, removed'));
  await keeper.bringBack(await keeper.remove(project.id));
  expect((await load(db, project.id))?.snapshot.project.name).toBe('Winch, removed');
  db.close();
});
