import { type Page } from '@playwright/test';
import { rates, sampled } from './cli';
import { floats, jib, mixedLegs } from './made-up';
import { Bench, curvesIn, dropped, press, readJson, tab, type SavedCurve } from './pages';
import { expect, test } from './test';

const RUN = 'skip/translate.x';

const framesIn = (file: string, channel: string) =>
  curvesIn(file)
    .find((curve) => curve.channel === channel)
    ?.keys.map(({ frame }) => frame);

test('the skip hauled up, waiting by a copied key, let down; its first departure even, the braking kept', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Skip');
  await bench.row(RUN).getByText('place').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await bench.row('skip').click();
  await page.getByRole('button', { name: 'Ticks' }).click();
  for (const [frame, value] of [
    [0, '0'],
    [96, '6.4'],
    [192, '0'],
  ] as const) {
    await bench.goTo(frame);
    await bench.type('Place X', frame === 0 ? '0.1' : value);
    await page.keyboard.press('d');
    if (frame === 0) {
      await tab(page, 'Key');
      await bench.type('Value', value);
    }
    await bench.row('skip').click();
  }
  expect(framesIn(await bench.save(), RUN)).toEqual([0, 96, 192]);

  await bench.goTo(96);
  await bench.row(RUN).getByText('place').click();
  await page.keyboard.press('k');
  await tab(page, 'Time');
  await bench.type('Frames to move by', '40');
  await press(page, 'Wait 40 f');
  expect(framesIn(await bench.save(), RUN)).toEqual([0, 96, 136, 232]);

  const side = (word: string, mode: string) =>
    page
      .getByRole('group', { name: `How the curve ${word}` })
      .getByRole('button', { name: mode })
      .click();
  await tab(page, 'Key');
  await side('arrives', 'Flat');
  await bench.goTo(0);
  await page.keyboard.press('k');
  await side('leaves', 'Linear');
  await bench.goTo(232);
  await page.keyboard.press('k');
  await side('arrives', 'Flat');
  const file = await bench.save();
  const at = rates(file, RUN, '0:232:1');
  for (let f = 96; f < 136; f += 8) expect(at.get(f)!.value).toBe(6.4);
  expect(at.get(0)!.speed).toBeCloseTo((6.4 / 96) * 24, 9);
  expect(Math.abs(at.get(95)!.speed)).toBeLessThan(0.1);
  expect(Math.abs(at.get(231)!.speed)).toBeLessThan(0.1);
  expect(at.get(184)!.value).toBeGreaterThan(2.5);
  expect(at.get(232)!.value).toBe(0);
});

test('a board keyed by lift only, turned by mistake: the turn waits in the tray, neither lost nor keyed', async ({
  page,
}) => {
  await page.goto('/');
  await press(page, 'New, empty');
  const bench = new Bench(page);
  await expect(bench.canvas).toBeVisible();
  await press(page, 'Box');
  await bench.type('Name', 'Sluice board').catch(() => undefined);
  await page.keyboard.press('c');
  await press(page, 'May start new channels');
  await page.getByRole('button', { name: /^Scope/ }).click();
  for (const kind of ['turn', 'size', 'squash', 'look', 'custom'])
    await page.getByRole('menuitemcheckbox', { name: kind }).click();
  await page.keyboard.press('Escape');
  await bench.goTo(48);
  await bench.type('Place Y', '0.9');
  await expect(page.getByText('place Y keyed at f 48, and where the range starts')).toBeVisible();
  await bench.type('Turn Z', '4');
  await expect(page.getByText('turn Z waits: outside the Scope')).toBeVisible();
  await bench.goTo(12);
  const tray = page.getByRole('region', { name: 'Loose edits' });
  await expect(tray).toContainText('turn Z 4.0°, was 0.0° at f 48');
  const file = await bench.save();
  expect(curvesIn(file).map(({ channel }) => channel)).toEqual(['box/translate.y']);
  expect(framesIn(file, 'box/translate.y')).toEqual([0, 48]);
  await bench.kept();
  await page.reload();
  await bench.ready();
  await expect(tray).toContainText('turn Z 4.0°, was 0.0° at f 48');

  await test.step('the tray in full: picked, keyed where it was made, undone, discarded', async () => {
    await tray.getByRole('button', { name: /1 loose edit/ }).click();
    await page.getByRole('checkbox', { name: /turn Z at frame 48/ }).check();
    await tray.getByRole('button', { name: 'Key 1' }).click();
    expect(sampled(await bench.save(), 'box/rotate.z', '48:48').get(48)).toBe(4);
    await page.keyboard.press('Control+z');
    await expect(tray).toContainText('f 48');
    await tray.getByRole('button', { name: 'Key them here' }).click();
    expect(framesIn(await bench.save(), 'box/rotate.z')).toEqual([12]);
    await page.keyboard.press('Control+z');
    await tray.getByRole('button', { name: 'Discard' }).click();
    await expect(tray).toBeHidden();
    expect(curvesIn(await bench.save())).toHaveLength(1);
  });
});

test('all keys but the first pose 20 % faster', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  const before = await bench.save();
  await bench.row(RUN).getByText('place').click();
  await tab(page, 'Time');
  await press(page, 'All but the first');
  await bench.type('Speed', '120');
  const file = await bench.save();
  expect(framesIn(file, RUN)).toEqual([0, 144, 174, 254]);
  const old = sampled(before, RUN, '144:276:12');
  const now = sampled(file, RUN, '144:254:10');
  for (let i = 0; i <= 11; i++) expect(now.get(144 + i * 10)!).toBeCloseTo(old.get(144 + i * 12)!, 9);
});

test('a gap of 24 frames across 30 channels, two locked ones untouched, closed again: all as it was', async ({
  page,
}) => {
  const bench = await dropped(page, floats(32, 2));
  const before = readJson(await bench.save());
  await tab(page, 'Time');
  await press(page, 'All channels');
  await bench.goTo(30);
  await page.getByRole('button', { name: 'Open gap' }).hover();
  await expect(page.getByRole('status').filter({ hasText: 'Open gap' })).toContainText(
    /keys on 30 channels: from f 30 on later by 24 f, speeds stay; 2 locked left alone/,
  );
  await press(page, 'Open gap');
  const opened = await bench.save();
  expect(framesIn(opened, 'float-1/translate.y')).toEqual([0, 20.25, 60, 110]);
  expect(framesIn(opened, 'float-32/translate.y')).toEqual([1, 28, 115, 134]);
  expect(readJson(opened)['range']).toMatchObject({ end: 144 });
  await press(page, 'Close gap');
  expect(readJson(await bench.save())).toEqual(before);
});

test('Stakes on three intervals: dragged on the ruler, applied; set again and discarded', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Skip');
  const before = await bench.save();
  await bench.row(RUN).getByText('place').click();
  await tab(page, 'Time');
  const setStakes = async () => {
    for (const frame of [0, 60, 144, 276]) {
      await bench.goTo(frame);
      await page.keyboard.press('Shift+t');
    }
  };
  const onRuler = async (frame: number) => {
    const box = (await bench.canvas.boundingBox())!;
    const { first, last } = await bench.scales();
    return { x: box.x + ((frame - first) / (last - first)) * box.width, y: box.y + 8 };
  };
  await setStakes();
  await bench.drag(await onRuler(60), await onRuler(90));
  await expect.poll(() => bench.field('Stake of f 60 goes to')).toBe('90');
  await bench.type('Stake of f 144 goes to', '168');
  expect(framesIn(await bench.save(), RUN)).toEqual([0, 144, 180, 276]);
  await bench.goTo(168);
  await expect.poll(() => bench.value(RUN)).toBeCloseTo(sampled(before, RUN, '144:144').get(144)!, 6);
  await press(page, 'Apply');
  const file = await bench.save();
  expect(framesIn(file, RUN)).toEqual([0, 168, 168 + (36 * 108) / 132, 276]);
  await expect(page.getByText('Stake of')).toHaveCount(0);
  await setStakes();
  await bench.type('Stake of f 60 goes to', '20');
  await press(page, 'Discard');
  expect(readJson(await bench.save())).toEqual(readJson(file));
});

test('keys between frames are found and snapped; what would fall together is told', async ({ page }) => {
  const bench = await dropped(page, jib());
  await page.getByRole('button', { name: 'Ticks' }).click();
  await page.getByRole('button', { name: /^Off frame/ }).click();
  await expect(bench.row('jib/rotate.y')).toBeVisible();
  await expect(bench.row('hook/translate.y')).toBeHidden();
  await page.keyboard.press('Shift+f');
  await expect(page.getByText(/^1 put on whole frames; 2 would fall together/)).toBeVisible();
  expect(framesIn(await bench.save(), 'jib/rotate.y')).toEqual([0, 10, 50]);
  expect(framesIn(await bench.save(), 'jib/translate.x')).toEqual([0, 10, 80.7, 81.2]);
  await press(page, 'Merge them');
  const file = await bench.save();
  expect(framesIn(file, 'jib/translate.x')).toEqual([0, 10, 81]);
  expect(sampled(file, 'jib/translate.x', '81:81').get(81)).toBe(0.1);
});

test('time reversed on a curve of all kinds of legs samples backwards, its loop before instead of after', async ({
  page,
}) => {
  const bench = await dropped(page, mixedLegs());
  const channel = 'bar/translate.y';
  const before = await bench.save();
  await bench.row(channel).getByText('place').click();
  await page.keyboard.press('r');
  await expect(page.getByRole('status').filter({ hasText: 'f 0 to 90 backwards' })).toBeVisible();
  expect(readJson(await bench.save())).toEqual(readJson(before));
  await page.keyboard.press('r');
  const file = await bench.save();
  const was = sampled(before, channel, '-60.125:330:0.25');
  const is = sampled(file, channel, '-239.875:150:0.25');
  for (const [frame, value] of was) {
    const mirrored = is.get(90 - frame);
    if (mirrored !== undefined) expect(Math.abs(mirrored - value)).toBeLessThan(1e-9);
  }
  const curve = curvesIn(file)[0] as SavedCurve & { before: object; after?: object };
  expect(curve.before).toEqual({ mode: 'loop', count: 2.5, pin: 78 });
  expect(curve.after).toBeUndefined();
});

test('a pose copied from frame 10 to 50, mirrored; the shelf keeps one', async ({ page }) => {
  const bench = await dropped(page, jib());
  await bench.row('jib').click();
  await page.keyboard.press('c');
  await tab(page, 'Pose');
  await bench.goTo(10);
  await press(page, 'Copy');
  await bench.goTo(50);
  await press(page, 'Paste mirrored');
  const file = await bench.save();
  expect(framesIn(file, 'jib/translate.x')).toContain(50);
  expect(sampled(file, 'jib/translate.x', '50:50').get(50)).toBe(-0.8);
  expect(sampled(file, 'jib/rotate.y', '50:50').get(50)).toBe(-35);
  expect(sampled(file, 'hook/translate.y', '50:50').get(50)).toBe(-1.2);

  await test.step('kept on the shelf with a picture, used again at another frame, mirrored back', async () => {
    await press(page, 'Keep this pose');
    await expect(page.locator('kz-pose-sheet img')).toBeVisible();
    await bench.goTo(70);
    await press(page, 'Use Pose 1 mirrored');
    const kept = await bench.save();
    expect(sampled(kept, 'jib/rotate.y', '70:70').get(70)).toBe(35);
    expect(readJson(kept)['poses']).toMatchObject([{ name: 'Pose 1', values: { 'jib/rotate.y': -35 } }]);
    await bench.goTo(90);
    await bench.type('Frame whose pose is brought', '10');
    await press(page, 'Bring its pose here');
    expect(sampled(await bench.save(), 'jib/translate.x', '90:90').get(90)).toBe(0.8);
  });

  await test.step('poses held show stills on the keys; a released span moves', async () => {
    await bench.goTo(4);
    const moving = await bench.value('jib/rotate.y');
    expect(moving).toBeGreaterThan(1);
    await page.keyboard.press('Shift+h');
    await expect.poll(() => bench.value('jib/rotate.y')).toBe(0);
    await press(page, 'Release a span');
    await expect.poll(() => bench.value('jib/rotate.y')).toBe(moving);
    await page.keyboard.press('Shift+h');
    await expect.poll(() => bench.value('jib/rotate.y')).toBe(moving);
  });
});

test.describe('killed tabs', () => {
  test.use({ ownPage: true });

  test('nothing is lost when the tab is killed while an edit of time is shown, or Stakes are set', async ({
    page,
    context,
  }) => {
    const bench = await Bench.openSample(page, 'Skip');
    const url = page.url();
    await bench.row(RUN).getByText('place').click();
    await bench.goTo(100);
    await tab(page, 'Time');
    const kinds: readonly ((at: Page) => Promise<void>)[] = [
      (at) => at.getByRole('button', { name: 'Push after' }).hover(),
      (at) => at.keyboard.press('r'),
      async (at) => {
        await at.keyboard.press('Shift+t');
        await new Bench(at).goTo(200);
        await at.keyboard.press('Shift+t');
        await new Bench(at).type('Stake of f 200 goes to', '230');
      },
    ];
    let at = page;
    for (const kind of kinds) {
      const now = new Bench(at);
      await press(at, 'Hold still');
      await now.goTo(100);
      await at.keyboard.press('Control+z');
      await now.type('Frames to move by', '30');
      await press(at, 'Open gap');
      await at.mouse.move(500, 300);
      const file = readJson(await now.save());
      await now.kept();
      await kind(at);
      await at.evaluate(() => new Promise((later) => setTimeout(later, 1000)));
      const devtools = await context.newCDPSession(at);
      void devtools.send('Page.crash').catch(() => undefined);
      await at.waitForEvent('crash');
      at = await context.newPage();
      await at.goto(url);
      const back = new Bench(at);
      await back.ready();
      expect(readJson(await back.save())).toEqual(file);
      if ((await at.getByRole('button', { name: 'Discard' }).count()) > 0) await press(at, 'Discard');
    }
  });
});
