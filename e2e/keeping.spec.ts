import { readFileSync } from 'node:fs';
import { strToU8, zipSync } from 'fflate';
import { kaizen } from './cli';
import { foreignGlb, glb } from './foreign-model';
import type { Page } from '@playwright/test';
import { Bench, drop, pathOf, readJson } from './pages';
import { expect, test } from './test';

test.use({ ownPage: true });

const TURN = 'wheel/rotate.y';

test('a tab killed in mid-edit loses at most the last second', async ({ page, context }) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.row(TURN).getByText('turn').click();
  await page.keyboard.press('Control+a');
  await bench.type('Value', 'times 2');
  const file = readJson(await bench.save());
  await page.evaluate(() => new Promise((later) => setTimeout(later, 1000)));
  const from = await bench.place(48, 360, '°');
  await bench.drag(from, { x: from.x + 40, y: from.y - 20 }, false);
  const url = page.url();
  const devtools = await context.newCDPSession(page);
  void devtools.send('Page.crash').catch(() => undefined);
  await page.waitForEvent('crash');
  const again = await context.newPage();
  await again.goto(url);
  const back = new Bench(again);
  await back.ready();
  await expect(again.getByText('being edited in another tab')).toBeHidden();
  expect(readJson(await back.save())).toEqual(file);
});

test('an edit is there again though the page is left in the moment it is made', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.row('wheel/rotate.y').getByText('turn').click();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('k');
  await bench.kept();
  const address = page.url();
  for (const value of [181, 182, 183]) {
    await page.keyboard.press('Control+ArrowUp');
    await page.goto('about:blank');
    await page.goto(address);
    await bench.ready();
    await expect.poll(() => bench.value('wheel/rotate.y')).toBe(value);
    await bench.kept();
  }
});

test('a second tab follows read-only, and can take over', async ({ page, context }) => {
  const first = await Bench.openSample(page, 'Brine wheel');
  await first.kept();
  const second = new Bench(await context.newPage());
  await second.page.goto(page.url());
  await second.ready();
  await expect(second.page.getByText('being edited in another tab')).toBeVisible();

  await page.bringToFront();
  await first.row('pump').click();
  await first.type('Rest Place X', '3');
  await first.kept();
  await second.page.bringToFront();
  await second.row('pump').click();
  await expect.poll(() => second.field('Rest Place X')).toBe('3.00');
  await expect(second.page.getByRole('textbox', { name: 'Rest Place X' })).toBeDisabled();
  await second.page.keyboard.press('Control+z');
  await expect.poll(() => second.field('Rest Place X')).toBe('3.00');

  await second.page.getByRole('button', { name: 'Take over here' }).click();
  await expect(second.page.getByText('being edited in another tab')).toBeHidden();
  await second.type('Rest Place X', '4');
  await second.kept();
  await page.bringToFront();
  await expect(page.getByText('being edited in another tab')).toBeVisible();
  await expect.poll(() => first.field('Rest Place X')).toBe('4.00');
  await page.reload();
  await first.ready();
  await first.row('pump').click();
  await expect.poll(() => first.field('Rest Place X')).toBe('4.00');
});

test('a save that fails says so and is tried until it holds', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.kept();
  await fillDisk(page);
  await bench.row('pump').click();
  await bench.type('Rest Place X', '5');
  await expect(page.locator('kz-keep-line')).toContainText('not kept: this disk is full; trying again');
  await makeRoom(page);
  await bench.kept();
  await page.reload();
  await bench.ready();
  await bench.row('pump').click();
  await expect.poll(() => bench.field('Rest Place X')).toBe('5.00');
});

/** Makes every write fail as on a full disk, until `makeRoom` is called. */
async function fillDisk(page: Page): Promise<void> {
  await page.evaluate(() => {
    // eslint-disable-next-line @typescript-eslint/unbound-method -- put back as it was
    const original = IDBDatabase.prototype.transaction;
    Object.assign(window, { makeRoom: () => (IDBDatabase.prototype.transaction = original) });
    IDBDatabase.prototype.transaction = function (stores, mode, options) {
      if (mode === 'readwrite') throw new DOMException('no room', 'QuotaExceededError');
      return original.call(this, stores, mode, options);
    };
  });
}
const makeRoom = (page: Page) =>
  page.evaluate(() => (window as unknown as { makeRoom: () => void }).makeRoom());

test('a project whose newest edits can’t be kept is not left without asking', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  await bench.kept();
  await page.getByRole('link', { name: 'Projects' }).click();
  await page.getByRole('button', { name: 'Open the sample Brine wheel' }).click();
  await bench.ready();
  await bench.kept();
  await fillDisk(page);
  await bench.row('pump').click();
  await bench.type('Rest Place X', '5');
  await expect(page.locator('kz-keep-line')).toContainText('not kept');
  await page.getByRole('link', { name: 'Projects' }).click();
  await page.getByRole('button', { name: 'Open Skip' }).click();
  const asked = page.getByRole('dialog', { name: 'Edits that are not kept' });
  await expect(asked).toContainText('this disk is full');
  const download = page.waitForEvent('download');
  await asked.getByRole('button', { name: 'Save a file' }).click();
  const file = readJson(await pathOf(await download)) as {
    parts: { id: string; rest?: { translate: number[] } }[];
  };
  expect(file.parts.find((part) => part.id === 'pump')!.rest!.translate[0]).toBe(5);
  await asked.getByRole('button', { name: 'Stay and keep trying' }).click();
  await makeRoom(page);
  await page.getByRole('link', { name: 'Bench' }).click();
  await bench.ready();
  await bench.kept();
  await page.getByRole('link', { name: 'Projects' }).click();
  await page.getByRole('button', { name: 'Open Skip' }).click();
  await bench.ready();
  await expect(asked).toBeHidden();
  await page.getByRole('link', { name: 'Projects' }).click();
  await page.getByRole('button', { name: 'Open Brine wheel' }).click();
  await bench.ready();
  await bench.row('pump').click();
  await expect.poll(() => bench.field('Rest Place X')).toBe('5.00');
});

test('a tab killed while it edits without a pause loses at most the last second', async ({
  page,
  context,
}) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.row('pump').click();
  const edits: { at: number; value: number }[] = [];
  const field = page.getByRole('textbox', { name: 'Rest Place X', exact: true });
  for (const until = Date.now() + 4000; Date.now() < until;) {
    const value = edits.length + 1;
    await field.fill(String(value));
    await field.press('Enter');
    edits.push({ at: Date.now(), value });
  }
  const url = page.url();
  const killed = Date.now();
  const devtools = await context.newCDPSession(page);
  void devtools.send('Page.crash').catch(() => undefined);
  await page.waitForEvent('crash');
  const again = new Bench(await context.newPage());
  await again.page.goto(url);
  await again.ready();
  await again.row('pump').click();
  const kept = Number(await again.field('Rest Place X'));
  const due = edits.filter(({ at }) => at < killed - 1000).at(-1)!.value;
  expect(kept).toBeGreaterThanOrEqual(due);
});

test('a project removed in another tab is said, and kept again where that is wanted', async ({
  page,
  context,
}) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.kept();
  const other = await context.newPage();
  await other.goto('/projects');
  await other.getByRole('button', { name: 'Remove Brine wheel' }).click();
  await expect(other.getByRole('button', { name: 'Open Brine wheel' })).toHaveCount(0);
  await page.bringToFront();
  await expect(page.getByRole('alert')).toContainText('was removed from this browser in another tab');
  await page.getByRole('button', { name: 'Keep it again' }).click();
  await bench.kept();
  await other.reload();
  await expect(other.getByRole('button', { name: 'Open Brine wheel' })).toHaveCount(1);
});

test('storage cleared under an open page is noticed, and the project written whole again', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.kept();
  await page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((done) => {
      const request = indexedDB.open('kaizen');
      request.onsuccess = () => done(request.result);
    });
    const names = Array.from(db.objectStoreNames);
    const transaction = db.transaction(names, 'readwrite');
    for (const name of names) transaction.objectStore(name).clear();
    await new Promise((done) => (transaction.oncomplete = done));
    db.close();
  });
  await expect(page.getByText('the open project was kept again, whole')).toBeVisible();
  await page.reload();
  await bench.ready();
});

test('a newer Kaizen’s storage is left alone on every address, and an older tab gives way', async ({
  page,
  context,
}) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.kept();
  const url = page.url();
  const newer = await context.newPage();
  await newer.goto('/health');
  await newer.evaluate(
    () =>
      new Promise<void>((done) => {
        const request = indexedDB.open('kaizen', 99);
        request.onsuccess = () => (request.result.close(), done());
      }),
  );
  await page.bringToFront();
  await expect(page.getByRole('heading', { name: 'Kaizen was updated in another tab' })).toBeVisible();
  for (const address of ['/', url, url.replace('bench', 'hand-over')]) {
    await newer.goto(address);
    await expect(
      newer.getByRole('heading', { name: 'A newer Kaizen has kept your projects here' }),
    ).toBeVisible();
  }
});

test('broken and hostile files say what is wrong where, and touch nothing', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  const before = readJson(await bench.save());
  const said = page.getByRole('status').filter({ hasText: 'Nothing was changed' });
  const broken = { ...before, parts: [{ id: 'a', name: 'A', kind: 'grouping' }] };
  const unsorted = structuredClone(before) as { clips: { curves: { keys: unknown[] }[] }[] };
  unsorted.clips[0]!.curves[0]!.keys.reverse();
  const json = (value: unknown) => strToU8(JSON.stringify(value));
  const cases: readonly (readonly [name: string, bytes: Uint8Array, sentence: RegExp])[] = [
    ['cut.kaizen.json', json(before).slice(0, 900), /cut\.kaizen\.json: .*JSON/],
    ['kind.kaizen.json', json(broken), /kind\.kaizen\.json: at \/parts\/0\/kind/],
    ['keys.kaizen.json', json(unsorted), /keys\.kaizen\.json: at \/clips\/0\/curves\/0\/keys/],
    ['later.kaizen.json', json({ ...before, version: 2 }), /later\.kaizen\.json: .*version/],
    ['empty.kaizen.zip', zipSync({ 'readme.txt': strToU8('hello') }), /empty\.kaizen\.zip: /],
    ['cut.glb', foreignGlb().slice(0, 300), /cut\.glb/],
    [
      'deep.glb',
      glb(JSON.stringify({ asset: { version: '2.0' }, nodes: [{ children: [0] }] }), new Uint8Array(0)),
      /deep\.glb: at \/nodes\/0/,
    ],
    ['notes.txt', strToU8('hello'), /notes\.txt: Kaizen opens/],
  ];
  for (const [name, bytes, sentence] of cases) {
    await drop(page, [{ name, bytes }]);
    await expect(said).toHaveText(sentence);
  }
  expect(readJson(await bench.save())).toEqual(before);
});

test('a project file comes back as it was, by dropping it and from a zip', async ({ page }, info) => {
  const bench = await Bench.openSample(page, 'Skip');
  const json = await bench.save();
  await bench.kept();
  const zip = info.outputPath('skip.kaizen.zip');
  expect(kaizen('convert', json, zip).code).toBe(0);
  await page.goto('/projects');
  // the Bench is made out of sight before a file is read: a bad one does not show it
  const bad = { ...readJson(json), activeClip: 'nowhere' };
  await drop(page, [{ name: 'bad.kaizen.json', bytes: strToU8(JSON.stringify(bad)) }]);
  await expect(page.getByRole('status').filter({ hasText: 'Nothing was changed' })).toContainText(
    'bad.kaizen.json: at /activeClip',
  );
  await expect(page).toHaveURL(/\/projects$/);
  await expect(page.locator('kz-bench')).toBeHidden();
  await drop(page, [{ name: 'skip.kaizen.zip', bytes: new Uint8Array(readFileSync(zip)) }]);
  await bench.ready();
  const { id: _, ...again } = readJson(await bench.save());
  const { id: __, ...before } = readJson(json);
  expect(again).toEqual(before);
  await bench.kept();
  await page.goto('/projects');
  await expect(page.getByRole('button', { name: 'Open Skip' })).toHaveCount(2);
  await page.getByRole('button', { name: 'Remove Skip' }).first().click();
  await expect(page.getByRole('button', { name: 'Open Skip' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByRole('button', { name: 'Open Skip' })).toHaveCount(2);
});
