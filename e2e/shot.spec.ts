import { readFileSync } from 'node:fs';
import { matrixOf, placeOf, sampled } from './cli';
import { yard } from './made-up';
import { dropped, press, tab } from './pages';
import { expect, test } from './test';

interface Saved {
  readonly parts: readonly (Readonly<Record<string, unknown>> & { readonly id: string })[];
}
const partIn = (file: string, id: string) =>
  (JSON.parse(readFileSync(file, 'utf8')) as Saved).parts.find((part) => part.id === id)!;

test('a sun goes from 6:40 to 19:10 by two keys: the light turns with it and the sky brightens', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  await tab(page, 'Shot');
  await press(page, 'Sun');
  await bench.goTo(0);
  await bench.type('hour, by number', '6:40');
  await page.keyboard.press('Shift+d');
  await bench.goTo(120);
  await bench.type('hour, by number', '19:10');
  await page.keyboard.press('Shift+d');
  expect(await bench.field('hour, by number')).toBe('19:10');
  const file = await bench.save();
  const hours = sampled(file, 'sun/custom.hour', '0:120:60');
  expect([hours.get(0), hours.get(120)]).toEqual([
    expect.closeTo(6 + 2 / 3, 9),
    expect.closeTo(19 + 1 / 6, 9),
  ]);
  const height = sampled(file, 'sun/custom.height', '0:120:60');
  expect(height.get(60)!).toBeGreaterThan(55);
  const down = (frame: number) => matrixOf(file, 'sun', frame).slice(8, 11);
  expect(down(0)[0]).toBeGreaterThan(0.5);
  expect(down(120)[0]).toBeLessThan(-0.5);
  expect(down(60)[1]).toBeCloseTo(Math.sin((height.get(60)! * Math.PI) / 180), 6);
});

test('two cameras: a cut is a held channel, the shot stands beside the working view, and a camera is flown', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  for (const name of ['First', 'Second']) {
    await page.keyboard.press('Escape');
    await tab(page, 'Shot');
    await press(page, 'Camera');
    await bench.type('Name', name);
  }
  await bench.goTo(60);
  await press(page, 'Cut to Second here');
  const visible = (file: string) =>
    ['camera', 'camera-2'].map((id) => [...sampled(file, `${id}/visible`, '0:120:30').values()]);
  expect(visible(await bench.save())).toEqual([
    [1, 1, 0, 0, 0],
    [0, 0, 1, 1, 1],
  ]);
  await page.keyboard.press('Shift+V');
  const pane = page.locator('kz-shot-pane');
  await expect(pane).toContainText('Second');
  await bench.goTo(30);
  await expect(pane).toContainText('First');
  await page.keyboard.press('Shift+V');
  await test.step('flown by a drag, the camera looks about; its turn is keyed', async () => {
    await press(page, 'Watch the shot');
    await press(page, 'Fly');
    const frame = (await page.locator('kz-view canvas').boundingBox())!;
    await page.mouse.move(frame.x + 400, frame.y + 150);
    await page.mouse.down();
    await page.mouse.move(frame.x + 500, frame.y + 150, { steps: 4 });
    await page.mouse.up();
    await page.keyboard.press('Shift+d');
    const file = await bench.save();
    expect(sampled(file, 'camera/rotate.y', '30:30').get(30)).toBeCloseTo(-12, 6);
    expect(placeOf(file, 'camera', 30)[2]).toBe(6);
  });
  await test.step('flown by keys, it looks about, goes on and aside, and is keyed', async () => {
    await page.getByRole('application', { name: 'View of the project' }).focus();
    for (const key of ['ArrowLeft', 'ArrowLeft', 'PageUp', 'Shift+ArrowRight'])
      await page.keyboard.press(key);
    await page.keyboard.press('Shift+d');
    const file = await bench.save();
    expect(sampled(file, 'camera/rotate.y', '30:30').get(30)).toBeCloseTo(-12 + 2 * 16 * 0.12, 6);
    const [x, , z] = placeOf(file, 'camera', 30);
    expect([x! > 0, z! < 6]).toEqual([true, true]);
  });
});

test('sizes, the pivot and a path by hand in the view', async ({ page }) => {
  const bench = await dropped(page, yard());
  await bench.row('hook').click();
  await page.keyboard.press('0');
  await tab(page, 'Part');
  await press(page, 'Sizes');
  await test.step('a size is dragged by its grip', async () => {
    const grip = (await page.locator('[data-grip="extent Y"]').boundingBox())!;
    await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
    await page.mouse.down();
    await page.mouse.move(grip.x + grip.width / 2, grip.y - 20, { steps: 4 });
    await expect(page.locator('.chip-at')).toContainText('extent Y 0.400 →');
    await page.mouse.up();
    const { geometry } = partIn(await bench.save(), 'hook') as unknown as {
      geometry: { size: readonly number[] };
    };
    expect(geometry.size[1]).toBeGreaterThan(0.45);
    expect([geometry.size[0], geometry.size[2]]).toEqual([0.4, 0.4]);
    await press(page, 'Sizes');
  });
  await test.step('the pivot dragged takes no frame along', async () => {
    const before = await bench.save();
    await press(page, 'Pivot');
    const grip = (await page.locator('[data-grip="pivot"]').boundingBox())!;
    await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
    await page.mouse.down();
    await page.mouse.move(grip.x + 40, grip.y + 30, { steps: 4 });
    await page.mouse.up();
    const after = await bench.save();
    const { pivot } = partIn(after, 'hook') as unknown as { pivot: readonly number[] };
    expect(Math.hypot(...pivot)).toBeGreaterThan(0.02);
    for (const frame of [0, 57, 101])
      placeOf(after, 'hook', frame).forEach((n, i) =>
        expect(Math.abs(n - placeOf(before, 'hook', frame)[i]!)).toBeLessThan(1e-9),
      );
    await press(page, 'Pivot');
  });
  await test.step('a path is drawn on the floor, point by point', async () => {
    await page.keyboard.press('Escape');
    await page.keyboard.press('Shift+0');
    await tab(page, 'Shot');
    await press(page, 'Path …');
    const frame = (await bench.view.boundingBox())!;
    for (const x of [0.2, 0.4, 0.7]) {
      await page.mouse.click(frame.x + frame.width * x, frame.y + frame.height * 0.75);
      await bench.settled();
    }
    await press(page, 'End the path');
    const { path } = partIn(await bench.save(), 'path') as unknown as {
      path: { points: readonly number[][] };
    };
    expect(path.points).toHaveLength(3);
    expect(path.points[0]![0]).toBeLessThan(path.points[2]![0]!);
  });
});

test('a number of its own with range and unit, keyed by its slider', async ({ page }) => {
  const bench = await dropped(page, yard());
  await bench.row('pump').click();
  await tab(page, 'Part');
  await press(page, 'New number');
  const form = page.locator('kz-numbers-form');
  await form.getByRole('textbox', { name: 'Name' }).fill('pressure');
  await page.keyboard.press('Enter');
  await bench.settled();
  await form.getByRole('textbox', { name: 'Unit' }).fill('bar');
  await page.keyboard.press('Enter');
  await bench.settled();
  await form.getByRole('textbox', { name: 'Greatest' }).fill('6');
  await page.keyboard.press('Enter');
  await bench.settled();
  await form.getByRole('slider', { name: 'pressure' }).fill('4.5');
  await form.getByRole('slider', { name: 'pressure' }).blur();
  await page.keyboard.press('Shift+d');
  const file = await bench.save();
  expect(partIn(file, 'pump')['custom']).toEqual([
    { name: 'pressure', value: 0, min: 0, max: 6, unit: 'bar' },
  ]);
  expect(sampled(file, 'pump/custom.pressure', '0:0').get(0)).toBe(4.5);
});

test('a camera aims at the block by a share and late, on a lens that goes from 41 to 63 mm', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  await tab(page, 'Shot');
  await press(page, 'Camera');
  for (const [frame, lens] of [
    [0, '41'],
    [120, '63'],
  ] as const) {
    await bench.goTo(frame);
    await bench.type('focal length', lens);
    await page.keyboard.press('Shift+d');
  }
  await tab(page, 'Links');
  await press(page, 'Aim …');
  await bench.row('hook').click();
  const card = page.locator('kz-constraint-card');
  await card.getByRole('textbox', { name: /^Share of/ }).fill('0.7');
  await page.keyboard.press('Enter');
  await card.getByRole('button', { name: 'Lag' }).click();
  await card.getByRole('textbox', { name: 'Swings' }).fill('1.2');
  await page.keyboard.press('Enter');
  const file = await bench.save();
  const { constraints } = JSON.parse(readFileSync(file, 'utf8')) as { constraints: readonly object[] };
  expect(constraints).toEqual([
    expect.objectContaining({ kind: 'aim', part: 'camera', target: 'hook', weight: 0.7 }),
  ]);
  expect(constraints[0]).toMatchObject({ lag: { frequency: 1.2 } });
  const lens = sampled(file, 'camera/camera.focalLength', '0:120:120');
  expect([lens.get(0), lens.get(120)]).toEqual([41, 63]);
  await test.step('it turns by seven tenths of the way to the block that stands still long before', () => {
    const [eye, to] = [matrixOf(file, 'camera', 19), placeOf(file, 'hook', 19)];
    const way = to.map((n, i) => n - eye[12 + i]!);
    const length = Math.hypot(...way);
    const straight = (Math.acos(-way[2]! / length) * 180) / Math.PI;
    const turned = (Math.acos(eye[10]!) * 180) / Math.PI;
    expect(turned / straight).toBeCloseTo(0.7, 3);
  });
});

test('a lamp is out exactly at frame 103, held until then, and its colour is keyed', async ({ page }) => {
  const bench = await dropped(page, yard());
  await tab(page, 'Shot');
  await press(page, 'Light');
  await bench.goTo(0);
  await bench.type('intensity', '800');
  await page.getByLabel('Colour', { exact: true }).fill('#ffcc88');
  await page.keyboard.press('Shift+d');
  await bench.goTo(103);
  await bench.type('intensity', '0');
  await page.keyboard.press('Shift+d');
  await bench.goTo(50);
  const lamp = 'light/light.intensity';
  await bench.reveal(lamp);
  await bench.row(lamp).locator('.name').click();
  await page.getByRole('button', { name: 'Ticks', exact: true }).first().click();
  await bench.calm();
  await bench.settled();
  const row = (await bench.row(lamp).boundingBox())!;
  await page.mouse.click(await bench.frameX(0), row.y + row.height / 2);
  await tab(page, 'Key');
  await page.getByRole('button', { name: 'Hold', exact: true }).first().click();
  const file = await bench.save();
  const light = sampled(file, lamp, '102:104:0.25');
  for (const frame of [102, 102.5, 102.75]) expect(light.get(frame)).toBe(800);
  for (const frame of [103, 103.25, 104]) expect(light.get(frame)).toBe(0);
  expect(sampled(file, 'light/light.color.g', '0:0').get(0)!).toBeCloseTo(((0.8 + 0.055) / 1.055) ** 2.4, 4);
});
