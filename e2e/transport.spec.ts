import { Bench, readJson } from './pages';
import { expect, test } from './test';

interface Saved {
  readonly rate: { readonly frames: number; readonly per?: number };
  readonly range: { readonly start: number; readonly end: number; readonly loop?: boolean };
  readonly clips: readonly {
    readonly curves: readonly { readonly keys: readonly { readonly frame: number }[] }[];
  }[];
}

test('the playhead by ruler, fields and keys; what is no number is told', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  const frame = () => bench.field('Frame of the playhead');
  const canvas = (await bench.canvas.boundingBox())!;
  const { first, last } = await bench.scales();
  const x = (at: number) => canvas.x + ((at - first) / (last - first)) * canvas.width;
  await bench.drag({ x: x(20), y: canvas.y + 6 }, { x: x(73.3), y: canvas.y + 6 });
  await expect.poll(frame).toBe('73');
  await bench.drag({ x: x(73), y: canvas.y + 6 }, { x: x(120), y: canvas.y + 6 }, false);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect.poll(frame).toBe('73');
  await bench.type('Frame of the playhead', '1.5 s');
  await expect.poll(frame).toBe('36');
  await bench.type('Second of the playhead', '2 + 1/2');
  await expect.poll(frame).toBe('60');
  await page.getByRole('textbox', { name: 'Frame of the playhead' }).press('ArrowUp');
  await expect.poll(frame).toBe('61');
  await bench.type('Frame of the playhead', 'soon');
  await expect(page.getByRole('status').filter({ hasText: '“soon” is no number here' })).toBeVisible();
  await expect.poll(frame).toBe('61');
  await page.getByRole('button', { name: 'Close this message' }).click();
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowRight');
  await expect.poll(frame).toBe('1');
});

test('a number is scrubbed by dragging it: shown meanwhile, one step to undo, Esc gives it up', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.row('pump').click();
  const field = page.getByRole('textbox', { name: 'Place X', exact: true });
  const before = Number(await field.inputValue());
  const box = (await field.boundingBox())!;
  const from = { x: box.x + 12, y: box.y + 10 };
  await bench.drag(from, { x: from.x + 60, y: from.y }, false);
  await expect.poll(async () => Number(await field.inputValue())).toBeCloseTo(before + 0.2, 6);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect.poll(async () => Number(await field.inputValue())).toBe(before);
  await bench.drag(from, { x: from.x + 60, y: from.y });
  await expect.poll(async () => Number(await field.inputValue())).toBeCloseTo(before + 0.2, 6);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Number(await field.inputValue())).toBe(before);
});

test('playing once stops at the end, forth and back turns round, all goes to the last key', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  const frame = async () => Number(await bench.field('Frame of the playhead'));
  await page.getByLabel('How it plays').selectOption({ label: 'Once' });
  await bench.type('How fast it plays', '2');
  await bench.goTo(200);
  await page.keyboard.press('Space');
  await expect.poll(frame).toBe(240);
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
  await page.getByLabel('How it plays').selectOption({ label: 'Forth and back' });
  await bench.goTo(225);
  await page.keyboard.press('Space');
  await expect.poll(frame, { intervals: [50] }).toBeLessThan(215);
  await page.keyboard.press('Space');
  await page.getByLabel('How it plays').selectOption({ label: 'Loop' });
  await bench.goTo(230);
  await page.keyboard.press('Space');
  await expect.poll(frame, { intervals: [50] }).toBeLessThan(100);
  await page.keyboard.press('Space');
});

test('the shot: its range by hand and number, a loop, another rate that keeps the seconds, gravity and floor', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  const saved = async () => readJson(await bench.save()) as unknown as Saved;
  const canvas = (await bench.canvas.boundingBox())!;
  const { first, last } = await bench.scales();
  const x = (at: number) => canvas.x + ((at - first) / (last - first)) * canvas.width;
  await bench.drag({ x: x(240) - 3, y: canvas.y + 20 }, { x: x(192) - 3, y: canvas.y + 20 });
  expect((await saved()).range.end).toBe(192);
  await bench.type('Range starts', '24');
  await page.getByRole('button', { name: 'The range is a loop' }).click();
  expect((await saved()).range).toEqual({ start: 24, end: 192, loop: true });
  await bench.type('Frames a second', '12');
  const half = await saved();
  expect(half.rate).toMatchObject({ frames: 12 });
  expect(half.range).toMatchObject({ start: 12, end: 96 });
  expect(half.clips[0]!.curves[0]!.keys.map((key) => key.frame)).toEqual([0, 24, 72]);
  await bench.type('Frames a second', '29.97');
  expect((await saved()).rate).toEqual({ frames: 30000, per: 1001 });
  await bench.type('Gravity', '1.62');
  await bench.type('Floor', '-20 cm');
  expect(await saved()).toMatchObject({ gravity: 1.62, floor: -0.2 });
  await expect(page.getByText('floor −0.20 m')).toBeVisible();
  for (let i = 0; i < 7; i++) await page.keyboard.press('Control+z');
  expect((await saved()).range).toEqual({ start: 0, end: 240 });
});

test('a part by number: name, parent, rest, pivot, turn order, squash, colour', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  await bench.row('bucket').click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Tipping bucket');
  await page.getByRole('textbox', { name: 'Name', exact: true }).press('Enter');
  await page.getByRole('textbox', { name: 'Name', exact: true }).blur();
  await expect(bench.row('bucket')).toContainText('Tipping bucket');
  await bench.type('Rest Place X', 'by 0.1');
  await bench.type('Pivot Y', '5 cm');
  await page.getByRole('button', { name: 'ZXY' }).click();
  await page.getByRole('button', { name: 'Off', exact: true }).click();
  await page.getByRole('group', { name: 'Squash axis' }).getByRole('button', { name: 'X' }).click();
  await page.getByRole('button', { name: 'parent’s' }).click();
  await bench.type('Contact Y', '-0.24');
  await bench.type('squash', '-0.3');
  await expect(page.getByRole('region', { name: 'Loose edits' })).toContainText('squash');
  const parts = readJson(await bench.save())['parts'] as Record<string, unknown>[];
  expect(parts.find((part) => part['id'] === 'bucket')).toMatchObject({
    name: 'Tipping bucket',
    parent: 'skip',
    rest: { translate: [0.72, 0.36, 0] },
    pivot: [0, 0.05, 0],
    turnOrder: 'ZXY',
    squash: { axis: 'x', anchor: [0, -0.24, 0], frame: 'parent' },
  });
  await page.getByRole('tab', { name: 'Links' }).click();
  await page.getByRole('combobox', { name: 'Ride on' }).selectOption({ label: 'the scene' });
  const after = readJson(await bench.save())['parts'] as Record<string, unknown>[];
  expect(after.find((part) => part['id'] === 'bucket')).not.toHaveProperty('parent');
});
