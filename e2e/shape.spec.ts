import { type Page } from '@playwright/test';
import { rates, sampled } from './cli';
import { recordedHoist } from './made-up';
import { Bench, dropped, readJson } from './pages';
import { expect, test } from './test';

interface SavedKey {
  readonly frame: number;
  readonly value: number;
  readonly in?: { readonly mode?: string; readonly slope?: number; readonly reach?: number };
  readonly out?: { readonly mode?: string; readonly slope?: number; readonly reach?: number };
  readonly leg?: { readonly kind: string };
}
interface SavedCurve {
  readonly channel: string;
  readonly keys: readonly SavedKey[];
  readonly treatments?: readonly Record<string, unknown>[];
}
function curveIn(file: string, channel: string): SavedCurve {
  const { curves } = (readJson(file)['clips'] as { curves: SavedCurve[] }[])[0]!;
  return curves.find((curve) => curve.channel === channel)!;
}

const tab = (page: Page, name: string) => page.getByRole('tab', { name }).click();
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

/** Chooses one channel by its row. */
async function channel(bench: Bench, id: string): Promise<void> {
  await bench.reveal(id);
  await bench.row(id).locator('.name').click();
  await bench.settled();
}

test('(a) the rake carriage across the pans at even speed, with a slow stop only at its end', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  await channel(bench, 'carriage/translate.x');
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
  await channel(bench, id);
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
  await channel(bench, id);
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
  await channel(bench, id);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await channel(bench, id);
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
  await channel(bench, id);
  await tab(page, 'Curve');
  await bench.type('Period', '22');
  await bench.type('Scale', 'times 0.5');
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
  await channel(bench, id);
  expect(lowest(await bench.save())).toBeLessThan(0.53);
  await page.keyboard.press('u');
  expect(lowest(await bench.save())).toBeGreaterThanOrEqual(0.54 - 1e-12);
  await expect(page.getByText(/legs kept between their keys: Bounded/)).toBeVisible();
});

test('(f) 400 dense keys simplified to fewer than 20 within a millimetre', async ({ page }) => {
  const bench = await dropped(page, recordedHoist());
  const id = 'hook/translate.y';
  await channel(bench, id);
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
  const hoist = recordedHoist(12000);
  const bench = await dropped(page, hoist);
  const id = 'hook/translate.y';
  await channel(bench, id);
  await tab(page, 'Curve');
  await bench.type('Within', '0.2 mm');
  await press(page, 'Simplify');
  await expect(page.getByRole('progressbar', { name: 'Working' })).toBeVisible();
  await press(page, 'Cancel');
  await expect(page.getByRole('progressbar', { name: 'Working' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Apply', exact: true })).toHaveCount(0);
  expect(curveIn(await bench.save(), id).keys).toHaveLength(12000);
});

test.describe('Rates', () => {
  const id = 'skip/translate.x';

  test('draw speed and acceleration, and a cruise dragged up makes its ramps longer while every key stays', async ({
    page,
  }) => {
    const bench = await Bench.openSample(page, 'Skip');
    await channel(bench, id);
    await page.keyboard.press('Control+3');
    await page.keyboard.press('Shift+0');
    await bench.settled();
    expect((await bench.scales()).strips.map(({ unit }) => unit)).toEqual(['m', 'm/s', 'm/s²']);
    const speed = (file: string) => rates(file, id, '225:225').get(225)!.speed;
    const was = speed(await bench.save());
    const from = await bench.place(225, was, 'm/s');
    const to = await bench.place(225, -2.8, 'm/s');
    await bench.drag(from, { x: from.x, y: to.y });
    const file = await bench.save();
    expect(speed(file)).toBeCloseTo(-2.8, 1);
    expect(curveIn(file, id).keys.map(({ value }) => value)).toEqual([0, 6.4, 6.4, 0]);
    await press(page, 'Places stay');
    const lifted = await bench.place(225, speed(file), 'm/s');
    await bench.drag(lifted, { x: lifted.x, y: lifted.y - 20 });
    const moved = await bench.save();
    expect(curveIn(moved, id).keys[3]!.value).toBeGreaterThan(0.2);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    expect(curveIn(await bench.save(), id).keys[3]!.value).toBe(0);
  });

  test('the speed at a key dragged changes its slope, the sheet says the same', async ({ page }) => {
    const bench = await Bench.openSample(page, 'Quay');
    await channel(bench, 'carriage/translate.x');
    await page.keyboard.press('Control+3');
    await page.keyboard.press('Shift+0');
    await bench.settled();
    const slope = ((2 - -2.4) / 66) * 24;
    const from = await bench.place(60, slope, 'm/s');
    const to = await bench.place(60, 0.5, 'm/s');
    await bench.drag(from, to);
    await expect.poll(async () => Number(await bench.field('Speed out'))).toBeCloseTo(0.5, 1);
    const read = rates(await bench.save(), 'carriage/translate.x', '60:60').get(60)!;
    expect(read.speed).toBeCloseTo(0.5, 1);
    expect(read.value).toBe(0.4);
  });
});

test('resting on a picture shows it and changes nothing; a press takes it; Convert makes curves of it', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'carriage/translate.x';
  await channel(bench, id);
  await page.keyboard.press('Shift+0');
  await bench.settled();
  const first = await bench.place(0, -3, 'm');
  await page.mouse.click(first.x, first.y);
  await page.keyboard.press('Control+l');
  const before = JSON.stringify(curveIn(await bench.save(), id));
  const picture = page.getByRole('button', { name: /^Ease elastic/ });
  await picture.focus();
  await expect(page.getByText(/^Resting on elastic: top speed/)).toBeVisible();
  expect(JSON.stringify(curveIn(await bench.save(), id))).toBe(before);
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/^Resting on bounce/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/^Resting on/)).toHaveCount(0);
  expect(JSON.stringify(curveIn(await bench.save(), id))).toBe(before);
  await page.getByRole('button', { name: /^Law cycloidal/ }).click();
  await bench.calm();
  const taken = await bench.save();
  expect(curveIn(taken, id).keys[0]!.leg).toEqual({ kind: 'law', law: 'cycloidal' });
  const law = sampled(taken, id, '0:30');
  const tau = 10 / 30;
  expect(law.get(10)!).toBeCloseTo(-3 + 0.6 * (tau - Math.sin(2 * Math.PI * tau) / (2 * Math.PI)), 12);
  await press(page, 'Convert to Curve');
  const converted = await bench.save();
  expect(curveIn(converted, id).keys[0]!.leg).toBeUndefined();
  const curve = sampled(converted, id, '0:30:0.5');
  for (const [frame, value] of law) expect(Math.abs(curve.get(frame)! - value)).toBeLessThanOrEqual(0.6e-3);
});

test('a seam is measured and closed; a repeated key leads to the one that it repeats', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'buoy/translate.y';
  await channel(bench, id);
  await page.keyboard.press('Shift+0');
  await page.keyboard.press('k');
  await bench.settled();
  const last = await bench.place(72, 0.1, 'm');
  await page.mouse.click(last.x, last.y);
  await bench.type('Value', '0.16');
  await bench.type('Speed in', '0.3');
  const gap = (what: string) => page.locator(`[data-gap="${what}"]`).last();
  await expect(gap('value')).toHaveText('−0.060');
  await page.getByRole('button', { name: 'Close the seam in value: move the last' }).last().click();
  await expect(gap('value')).toHaveText('0.000');
  await page.getByRole('button', { name: 'Close the seam in speed: move the last' }).last().click();
  await expect(gap('speed')).toHaveText('0.00');
  const file = await bench.save();
  const near = rates(file, id, '71.999999:72.000001:0.000002');
  const [before, after] = [...near.values()];
  expect(after!.value - before!.value).toBeCloseTo(0, 5);
  expect(after!.speed - before!.speed).toBeCloseTo(0, 4);
  await page.keyboard.press('Escape');
  await channel(bench, id);
  const ghost = await bench.place(108, -0.08, 'm');
  await page.mouse.click(ghost.x, ghost.y);
  await expect.poll(() => bench.field('Frame')).toBe('36');
});

test('a treatment’s weight becomes a curve that is keyed in the same Chart', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'buoy/rotate.z';
  await channel(bench, id);
  await tab(page, 'Curve');
  await press(page, 'Over time');
  await expect(page.getByRole('img', { name: /^Chart, 2 channels drawn/ })).toBeVisible();
  await page.keyboard.press('Shift+0');
  await bench.settled();
  const end = await bench.place(144, 1, 'look');
  await page.mouse.click(end.x, end.y);
  await tab(page, 'Key');
  await bench.type('Value', '0');
  const file = await bench.save();
  const weight = curveIn(file, id).treatments![0]!['weight'] as { keys: SavedKey[] };
  expect(weight.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [0, 1],
    [144, 0],
  ]);
  const values = sampled(file, id, '0:400');
  for (let frame = 144; frame <= 400; frame++) expect(values.get(frame)!).toBe(0);
  expect(Math.max(...[...values.values()].map(Math.abs))).toBeGreaterThan(1);
});

test('a second take is kept, switched and dropped; baking replaces treatments by keys', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'carriage/translate.x';
  await channel(bench, id);
  await tab(page, 'Curve');
  await press(page, 'Keep a second take');
  await page.locator('#key-1-value').click();
  await page.keyboard.press('F2');
  await page.getByRole('textbox', { name: 'value of key 2' }).fill('-1.5');
  await page.keyboard.press('Enter');
  const value = async () => curveIn(await bench.save(), id).keys[1]!.value;
  await expect.poll(value).toBe(-1.5);
  await press(page, 'Switch');
  await expect.poll(value).toBe(-2.4);
  await press(page, 'Switch');
  await press(page, 'Drop');
  await expect.poll(value).toBe(-1.5);
  await channel(bench, 'buoy/rotate.z');
  const before = sampled(await bench.save(), 'buoy/rotate.z', '0:144');
  await press(page, 'Bake to keys');
  const file = await bench.save();
  expect(curveIn(file, 'buoy/rotate.z').treatments ?? []).toEqual([]);
  const after = sampled(file, 'buoy/rotate.z', '0:144');
  for (const [frame, was] of before) expect(after.get(frame)!).toBeCloseTo(was, 9);
});

test('several keys scaled by the box and by number, back to what they were', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'carriage/translate.x';
  await channel(bench, id);
  await page.keyboard.press('Shift+0');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+b');
  await bench.settled();
  const corner = await bench.place(120, 3, 'm');
  const target = await bench.place(90, 3, 'm');
  const grip = { x: corner.x + 12, y: corner.y - 12 };
  await bench.drag(grip, { x: grip.x + target.x - corner.x, y: grip.y });
  const frames = async () => curveIn(await bench.save(), id).keys.map(({ frame }) => frame);
  await expect.poll(frames).toEqual([0, 22.5, 45, 72, 90]);
  await bench.type('Time ×', '4/3');
  await expect.poll(frames).toEqual([0, 30, 60, 96, 120]);
  await bench.type('Value ×', '0.5');
  const values = async () => curveIn(await bench.save(), id).keys.map(({ value }) => value);
  await expect.poll(values).toEqual([-3, -2.7, -1.3, -0.5, 0]);
});
