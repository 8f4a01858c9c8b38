import { rates, sampled } from './cli';
import { recordedHoist } from './made-up';
import { Bench, chooseChannel, curveIn, dropped, press, tab } from './pages';
import { expect, test } from './test';

test('(a) the rake carriage across the pans at even speed, with a slow stop only at its end', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  await chooseChannel(bench, 'carriage/translate.x');
  await tab(page, 'Curve');
  const cell = (row: number, column: string) => page.locator(`#key-${row}-${column}`);
  await cell(1, 'frame').click();
  for (const row of [2, 3]) {
    await cell(row, 'frame').focus();
    await cell(row, 'frame').press(' ');
  }
  await expect(page.getByRole('tab', { name: 'Key 3' })).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('grid', { name: 'Keys of the channel' }).getByRole('row')).toHaveCount(3);
  await cell(0, 'frame').click();
  await page.keyboard.press('Control+l');
  await page.getByRole('button', { name: /^Law trapezoid/ }).click();
  await tab(page, 'Key');
  await bench.type('Accelerate', '0');
  await bench.type('Decelerate', '0.3');
  const read = rates(await bench.save(), 'carriage/translate.x', '0:120');
  const speeds = [...read.values()].map(({ speed }) => speed);
  const even = speeds.slice(0, 84);
  expect(Math.max(...even) - Math.min(...even)).toBeLessThan(1e-9);
  expect(even[0]).toBeCloseTo(6 / 5 / 0.85, 6);
  for (let frame = 85; frame < 120; frame++) expect(speeds[frame]!).toBeLessThan(speeds[frame - 1]!);
  expect(speeds[119]!).toBeLessThan(even[0]! / 30);
  expect(read.get(120)!.value).toBe(3);
});

test('(b) contacts brought to points and tops left hanging, one drag of many handles each', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'float/translate.y';
  await chooseChannel(bench, id);
  await page.keyboard.press('Shift+0');
  const before = await bench.save();
  await press(page, 'Contacts');
  await expect(page.getByRole('tab', { name: 'Key 4' })).toBeVisible();
  const last = await bench.place(84, 0.54, 'm');
  await page.keyboard.down('Control');
  await page.mouse.click(last.x, last.y);
  await page.keyboard.up('Control');
  await expect(page.getByRole('tab', { name: 'Key 3' })).toBeVisible();
  await press(page, 'Split');
  await page.locator('kz-key-sheet .handles').getByRole('button', { name: 'both', exact: true }).click();
  const handle = async (frame: number, slope: number, reach: number, value: number) =>
    bench.place(frame + reach, value + slope * reach, 'm');
  const slope16 = (1.62 - 2.5) / 31;
  const from = await handle(16, slope16, 5, 0.54);
  await bench.drag(from, { x: from.x, y: from.y - 60 });
  const pointed = await bench.save();
  for (const frame of [16, 46, 68]) {
    const near = rates(pointed, id, `${frame - 0.01}:${frame + 0.01}:0.02`);
    const [down, up] = [...near.values()].map(({ speed }) => speed);
    expect(down!).toBeLessThan(-1.2);
    expect(up!).toBeGreaterThan(1.2);
    expect(curveIn(pointed, id).keys.find((key) => key.frame === frame)!.value).toBe(0.54);
  }
  await page.keyboard.press('Escape');
  await chooseChannel(bench, id);
  await press(page, 'Tops');
  await press(page, 'Lengths together');
  await page.locator('kz-key-sheet .handles').getByRole('button', { name: 'leaving', exact: true }).click();
  const slope31 = 0;
  const leaving = await handle(31, slope31, 5, 1.62);
  const farther = await bench.place(31 + 9, 1.62, 'm');
  await page.keyboard.down('Shift');
  await bench.drag(leaving, { x: farther.x, y: leaving.y });
  await page.keyboard.up('Shift');
  const hanging = await bench.save();
  for (const frame of [31, 57]) {
    const drop = (file: string, at: number) => {
      const values = sampled(file, id, '0:84');
      return values.get(frame)! - values.get(at)!;
    };
    for (const at of [frame - 4, frame + 4]) expect(drop(hanging, at)).toBeLessThan(drop(before, at) * 0.6);
  }
});

test('(c) a turn of 250° of the brine wheel made an endless even turn at 9 rpm, with a spin-up that plays once', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  const id = 'wheel/rotate.y';
  await chooseChannel(bench, id);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await chooseChannel(bench, id);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a command' }).fill('paste a table');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'The table' }).fill('frame\tturn\n0\t0\n36\t40\n136\t290\n');
  await expect(page.getByText('3 keys from f 0 to 136.')).toBeVisible();
  await press(page, 'Key them');
  await page.getByLabel('After', { exact: true }).selectOption({ label: 'Loop and carry' });
  await page.keyboard.press('Shift+0');
  await bench.settled();
  const pin = await bench.place(36, 40, '°');
  await page.mouse.click(pin.x, pin.y, { button: 'right' });
  await page.getByRole('menuitem', { name: /Pin: repeat from here/ }).click();
  await expect(page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
  await press(page, 'Make it even');
  await bench.type('Loop speed', '9');
  await expect(page.getByText('250.0 ° in 111.111 f, 4.630 s; ends at f 147.111')).toBeVisible();
  await press(page, 'Keep the values');
  const file = await bench.save();
  const turning = rates(file, id, '36:3000:13');
  for (const { speed } of turning.values()) expect(speed).toBeCloseTo(54, 5);
  const spinUp = [...rates(file, id, '0:35').values()].map(({ speed }) => speed);
  expect(spinUp[0]!).toBeLessThan(20);
  for (let i = 1; i < spinUp.length; i++) expect(spinUp[i]!).toBeGreaterThan(spinUp[i - 1]!);
  const values = sampled(file, id, '0:2000');
  for (let frame = 37; frame <= 2000; frame++)
    expect(values.get(frame)! - values.get(frame - 1)!).toBeCloseTo(54 / 24, 6);
});

test('(d) the buoy’s jitter tamed: a period of 22 frames, half as strong, closing over the loop', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'buoy/rotate.z';
  await chooseChannel(bench, id);
  await tab(page, 'Curve');
  await bench.type('Period', '22');
  await bench.type('Amount', 'times 0.5');
  await press(page, 'Closes over');
  const file = await bench.save();
  expect(curveIn(file, id).treatments![0]).toMatchObject({ period: 22, amplitude: 6, loop: 144 });
  const read = rates(file, id, '0:288');
  const values = [...read.values()].map(({ value }) => value);
  expect(Math.max(...values.map(Math.abs))).toBeLessThanOrEqual(6);
  expect(Math.max(...values.map(Math.abs))).toBeGreaterThan(1);
  for (let frame = 0; frame <= 144; frame++) {
    expect(read.get(frame + 144)!.value).toBeCloseTo(read.get(frame)!.value, 9);
    expect(read.get(frame + 144)!.speed).toBeCloseTo(read.get(frame)!.speed, 6);
  }
});

test('(e) a curve that dips below its keys cured by one press', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'float/translate.y';
  const lowest = (file: string) => Math.min(...sampled(file, id, '0:84:0.1').values());
  await chooseChannel(bench, id);
  expect(lowest(await bench.save())).toBeLessThan(0.53);
  await page.keyboard.press('u');
  expect(lowest(await bench.save())).toBeGreaterThanOrEqual(0.54 - 1e-12);
  await expect(page.getByText(/legs kept between their keys: Bounded/)).toBeVisible();
});

test('(f) 400 dense keys simplified to fewer than 20 within a millimetre', async ({ page }) => {
  const bench = await dropped(page, recordedHoist());
  const id = 'hook/translate.y';
  await chooseChannel(bench, id);
  const before = sampled(await bench.save(), id, '0:399');
  await tab(page, 'Curve');
  await bench.type('Within', '1 mm');
  await press(page, 'Simplify');
  const told = page
    .getByRole('status')
    .filter({ hasText: /Simplify: 400 keys → \d+, at most 0\.000\d+ m off/ });
  await expect(told).toBeVisible();
  expect(curveIn(await bench.save(), id).keys).toHaveLength(400);
  await press(page, 'Apply');
  const file = await bench.save();
  expect(curveIn(file, id).keys.length).toBeLessThan(20);
  const after = sampled(file, id, '0:399');
  for (const [frame, value] of before) expect(Math.abs(after.get(frame)! - value)).toBeLessThanOrEqual(1e-3);
});

test('simplifying very many keys tells how far it is and is given up without a trace', async ({ page }) => {
  const hoist = recordedHoist(24000);
  const bench = await dropped(page, hoist);
  const id = 'hook/translate.y';
  await chooseChannel(bench, id);
  await tab(page, 'Curve');
  await bench.type('Within', '0.2 mm');
  await press(page, 'Simplify');
  await expect(page.getByRole('progressbar', { name: 'Working' })).toBeVisible();
  await press(page, 'Cancel');
  await expect(page.getByRole('progressbar', { name: 'Working' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Apply', exact: true })).toHaveCount(0);
  expect(curveIn(await bench.save(), id).keys).toHaveLength(24000);
});
