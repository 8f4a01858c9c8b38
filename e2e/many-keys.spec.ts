import { type Page } from '@playwright/test';
import { sampled } from './cli';
import { Bench, curveIn, dropped, press } from './pages';
import { expect, test } from './test';

/** Editing many keys and curves in the Chart: what lies on each other, what stays drawn, pasting, menus, tables. */
const values = (file: string, id: string) => curveIn(file, id).keys.map(({ frame, value }) => [frame, value]);

const keys = [
  { frame: 0, value: 0 },
  { frame: 24, value: 1 },
  { frame: 48, value: 0.5 },
];
/** Two buoys that bob alike, and a third that does not move yet. */
const buoys = () => ({
  format: 'kaizen',
  version: 1,
  id: 'buoys',
  name: 'Buoys',
  rate: { frames: 24, per: 1 },
  range: { start: 0, end: 96 },
  parts: ['a', 'b', 'c'].map((id, i) => ({
    id: `buoy-${id}`,
    name: `Buoy ${id}`,
    kind: 'mesh',
    rest: { translate: [i, 0, 0] },
    geometry: { shape: 'sphere', radius: 0.3 },
  })),
  clips: [
    {
      id: 'main',
      name: 'Main',
      curves: ['a', 'b'].map((id) => ({ channel: `buoy-${id}/translate.y`, keys })),
    },
  ],
  activeClip: 'main',
});
const [A, B, C] = ['a', 'b', 'c'].map((id) => `buoy-${id}/translate.y`) as [string, string, string];

async function command(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a command' }).fill(words);
  await page.keyboard.press('Enter');
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);
}

test('curves that lie on each other: a second click takes the next, and only that one moves', async ({
  page,
}) => {
  const bench = await dropped(page, buoys());
  await page.keyboard.press('Shift+0');
  await bench.settled();
  const crest = await bench.place(24, 1, 'm');
  await page.mouse.click(crest.x, crest.y);
  await expect(page.getByText('Key of Buoy a, place Y')).toBeVisible();
  await page.mouse.click(crest.x, crest.y);
  await expect(page.getByText('Key of Buoy b, place Y')).toBeVisible();
  await bench.drag(crest, { x: crest.x, y: crest.y + 30 });
  const file = await bench.save();
  expect(curveIn(file, A).keys[1]!.value).toBe(1);
  expect(curveIn(file, B).keys[1]!.value).toBeLessThan(0.95);
});

test('a pinned row stays drawn when nothing is chosen; locked scales stay while curves change', async ({
  page,
}) => {
  const bench = await dropped(page, buoys());
  await bench.row(A).locator('.name').click();
  await bench.row(A).getByRole('button', { name: 'Keep drawn Buoy a, place Y' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('img', { name: /^Chart, 1 channels drawn/ })).toBeVisible();
  await bench.row(B).locator('.name').click();
  await expect(page.getByRole('img', { name: /^Chart, 2 channels drawn/ })).toBeVisible();
  await command(page, 'lock or free the scales');
  const before = (await bench.scales()).strips[0]!;
  await bench.calm();
  await page.keyboard.press('Control+a');
  await bench.type('Value', 'times 40');
  const after = (await bench.scales()).strips[0]!;
  expect([after.low, after.high]).toEqual([before.low, before.high]);
  await page.keyboard.press('8');
  await bench.settled();
  expect((await bench.scales()).strips[0]!.high).toBeGreaterThan(30);
});

test('copied keys come down shifted, negated, scaled, and on other parts', async ({ page }) => {
  const bench = await dropped(page, buoys());
  await bench.row(A).locator('.name').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await bench.goTo(72);
  await command(page, 'paste keys negated');
  expect(values(await bench.save(), A).slice(-3)).toEqual([
    [72, 0],
    [96, -1],
    [120, -0.5],
  ]);
  await page.keyboard.press('Control+z');
  await command(page, 'paste keys shifted');
  expect(values(await bench.save(), A).slice(-3)).toEqual([
    [72, 0.5],
    [96, 1.5],
    [120, 1],
  ]);
  await page.keyboard.press('Control+z');
  await bench.row('buoy-c').click();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a command' }).fill('paste keys scaled');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Values times' }).fill('2');
  await page.getByRole('textbox', { name: 'Values times' }).press('Enter');
  await press(page, 'the chosen parts');
  await expect(page.getByText('3 keys on 1 channel, shown behind')).toBeVisible();
  await press(page, 'Paste');
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);
  expect(values(await bench.save(), C)).toEqual([
    [72, 0],
    [96, 2],
    [120, 1],
  ]);
});

test('keys go to a spreadsheet as a table, and a table with a wrong line comes back with a word on it', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const bench = await dropped(page, buoys());
  await bench.row(A).locator('.name').click();
  await page.keyboard.press('Control+a');
  await page.getByRole('tab', { name: 'Curve' }).click();
  await press(page, 'Copy as a table');
  await expect(page.getByText('3 keys copied as a table; paste it into a spreadsheet')).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(text).toBe(`frame\tseconds\t${A}\n0\t0\t0\n24\t1\t1\n48\t2\t0.5\n`);
  await press(page, 'Paste a table…');
  await page.getByRole('textbox', { name: 'The table' }).fill('0.5\t2\nfull\tstop\n1,5\t3');
  await press(page, 'seconds');
  await expect(
    page.getByText('2 keys from f 12 to 36. Line 2 is not two numbers and will be left out.'),
  ).toBeVisible();
  await press(page, 'Key them');
  expect(values(await bench.save(), A)).toEqual([
    [0, 0],
    [12, 2],
    [24, 1],
    [36, 3],
    [48, 0.5],
  ]);
});

test('the table of keys by keyboard alone: walked, edited, sides and legs set, keys deleted', async ({
  page,
}) => {
  const bench = await dropped(page, buoys());
  await bench.row(A).locator('.name').click();
  await page.getByRole('tab', { name: 'Curve' }).click();
  const cell = (row: number, column: string) => page.locator(`#key-${row}-${column}`);
  await cell(0, 'frame').focus();
  await page.keyboard.press('ArrowDown');
  await expect(cell(1, 'frame')).toBeFocused();
  await expect(page.getByRole('tab', { name: 'Key 1' })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'frame of key 2' }).fill('1.5 s');
  await page.keyboard.press('Enter');
  await expect(cell(1, 'frame')).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('F2');
  await page.getByRole('textbox', { name: 'value of key 2' }).fill('by 0.25');
  await page.keyboard.press('Enter');
  await expect(cell(1, 'value')).toBeFocused();
  await page.keyboard.type('-99');
  await expect(page.getByRole('textbox', { name: 'value of key 2' })).toHaveValue('-99');
  await page.keyboard.press('Escape');
  await expect(cell(1, 'value')).toBeFocused();
  await page.keyboard.press('End');
  await expect(cell(1, 'leg')).toBeFocused();
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'leg of key 2' }).selectOption({ label: 'Hold' });
  await expect(cell(1, 'leg')).toHaveText('Hold');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'leaves of key 2' }).selectOption({ label: 'Flat' });
  const file = await bench.save();
  expect(curveIn(file, A).keys[1]).toMatchObject({
    frame: 36,
    value: 1.25,
    out: { mode: 'flat' },
    leg: { kind: 'hold' },
  });
  expect(sampled(file, A, '40:40').get(40)).toBe(1.25);
  await page.keyboard.press('Control+End');
  await expect(cell(2, 'out')).toBeFocused();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('grid', { name: 'Keys of the channel' }).getByRole('row')).toHaveCount(3);
});

test('the menu of a key by keyboard pins its loop; only the first departure is made gentle', async ({
  page,
}) => {
  const bench = await dropped(page, buoys());
  await bench.row(A).locator('.name').click();
  await page.keyboard.press('Shift+0');
  await bench.settled();
  const crest = await bench.place(24, 1, 'm');
  await page.mouse.click(crest.x, crest.y);
  await page.keyboard.press('Shift+F10');
  await page.getByRole('menuitem', { name: /Pin: repeat from here/ }).press('Enter');
  await expect(page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
  await expect
    .poll(async () => curveIn(await bench.save(), A).after)
    .toEqual({ mode: 'loop-carry', pin: 24 });
  await bench.canvas.focus();
  await page.keyboard.press('Control+a');
  await page.getByLabel('Of the chosen keys').selectOption({ label: 'only the first departure' });
  await page
    .getByRole('group', { name: 'How the curve leaves' })
    .getByRole('button', { name: 'Flat' })
    .click();
  const sides = curveIn(await bench.save(), A).keys;
  expect(sides.map(({ out }) => out?.mode)).toEqual(['flat', undefined, undefined]);
});

test('new keys get the sides and the leg that are asked for', async ({ page }) => {
  const bench = await dropped(page, buoys());
  await page.getByRole('button', { name: /^New keys:/ }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Flat', exact: true }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Hold after it' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'New keys: Flat, Hold' })).toBeVisible();
  await bench.row(A).locator('.name').click();
  await bench.goTo(72);
  await page.keyboard.press('d');
  const key = curveIn(await bench.save(), A).keys.at(-1);
  expect(key).toMatchObject({
    frame: 72,
    in: { mode: 'flat' },
    out: { mode: 'flat' },
    leg: { kind: 'hold' },
  });
});

test('a path drawn metres against metres: its keys are chosen and dragged there, on both channels', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  await bench.row('float/translate.y').locator('.name').click();
  await press(page, 'Shape');
  await page.getByRole('menuitemcheckbox', { name: /metres against metres/ }).click();
  await page.keyboard.press('Escape');
  await expect(page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
  const plot = page.locator('kz-path-plot canvas');
  const [scale = 1, x0 = 0, y0 = 0] = ((await plot.getAttribute('data-plane')) ?? '').split(' ').map(Number);
  const box = (await plot.boundingBox())!;
  const file = await bench.save();
  const last = sampled(file, 'float/translate.x', '84:84').get(84)!;
  const from = { x: box.x + x0 + last * scale, y: box.y + y0 - 0.54 * scale };
  await bench.drag(from, { x: from.x + scale / 2, y: from.y - scale / 4 });
  const moved = await bench.save();
  expect(curveIn(moved, 'float/translate.x').keys.at(-1)!.value).toBeCloseTo(last + 0.5, 2);
  expect(curveIn(moved, 'float/translate.y').keys.at(-1)!.value).toBeCloseTo(0.54 + 0.25, 2);
});
