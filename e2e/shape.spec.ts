import { rates, sampled } from './cli';
import { Bench, chooseChannel, curveIn, press, tab, type SavedKey } from './pages';
import { expect, test } from './test';

test.describe('Rates', () => {
  const id = 'skip/translate.x';

  test('draw speed and acceleration, and a cruise dragged up makes its ramps longer while every key stays', async ({
    page,
  }) => {
    const bench = await Bench.openSample(page, 'Skip');
    await chooseChannel(bench, id);
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
    await chooseChannel(bench, 'carriage/translate.x');
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
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'carriage/translate.x';
  await chooseChannel(bench, id);
  await page.keyboard.press('Shift+0');
  await bench.settled();
  const first = await bench.place(0, -3, 'm');
  await page.mouse.click(first.x, first.y);
  const playhead = await bench.field('Frame of the playhead');
  await page.keyboard.press('Control+l');
  const before = JSON.stringify(curveIn(await bench.save(), id));
  const picture = page.getByRole('button', { name: /^Ease elastic/ });
  await picture.focus();
  await expect(page.getByText(/^Resting on elastic: top speed/)).toBeVisible();
  await expect.poll(() => bench.field('Frame of the playhead'), 'the leg plays').not.toBe(playhead);
  expect(JSON.stringify(curveIn(await bench.save(), id))).toBe(before);
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/^Resting on bounce/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/^Resting on/)).toHaveCount(0);
  expect(await bench.field('Frame of the playhead')).toBe(playhead);
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
  await chooseChannel(bench, id);
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
  await chooseChannel(bench, id);
  const ghost = await bench.place(108, -0.08, 'm');
  await page.mouse.click(ghost.x, ghost.y);
  await expect.poll(() => bench.field('Frame')).toBe('36');
});

test('what a curve does outside its keys is set where the curve is, by the right button', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'carriage/translate.x';
  await chooseChannel(bench, id);
  await page.keyboard.press('Shift+0');
  await bench.settled();
  const after = await bench.place(140, 3, 'm');
  await page.mouse.click(after.x, after.y, { button: 'right' });
  await expect(page.getByText('Rake carriage, place X, after its last key')).toBeVisible();
  await page.getByRole('menuitemradio', { name: 'Loop and carry' }).click();
  expect(curveIn(await bench.save(), id).after?.mode).toBe('loop-carry');
  const among = await bench.place(75, 1.1, 'm');
  await page.mouse.click(among.x, among.y, { button: 'right' });
  await bench.settled();
  await expect(page.getByRole('menuitemradio')).toHaveCount(0);
});

test('a treatment’s weight becomes a curve that is keyed in the same Chart', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'buoy/rotate.z';
  await chooseChannel(bench, id);
  await tab(page, 'Curve');
  await press(page, 'Over time');
  await press(page, 'Plot it');
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

test('treatments are lanes under the plot: weighed there over time, reordered, passed by', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'buoy/rotate.z';
  await chooseChannel(bench, id);
  await tab(page, 'Curve');
  await press(page, 'Lay over ▾');
  await page.getByRole('menuitem', { name: 'Gain' }).click();
  await bench.type('Factor', '3');
  const bead = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}, lane`) });
  const lanes = page.locator('kz-lanes canvas');
  const plain = sampled(await bench.save(), id, '0:144');

  await bead('Noise').click();
  const box = (await lanes.boundingBox())!;
  const { first, last } = await bench.scales();
  const at = (frame: number, y: number) => ({
    x: box.x + ((frame - first) / (last - first)) * box.width,
    y: box.y + y,
  });
  for (const frame of [24, 72, 96]) {
    const place = at(frame, 25);
    await page.mouse.dblclick(place.x, place.y);
    await bench.settled();
  }
  await bench.drag(at(72, 5), at(72, 60));
  const weighed = await bench.save();
  const weight = curveIn(weighed, id).treatments![0]!['weight'] as { keys: SavedKey[] };
  expect(weight.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [0, 1],
    [24, 1],
    [72, 0],
    [96, 1],
    [144, 1],
  ]);
  const values = sampled(weighed, id, '0:144');
  expect(values.get(72)).toBe(0);
  for (const frame of [0, 12, 24, 96, 120]) expect(values.get(frame)).toBeCloseTo(plain.get(frame)!, 12);

  await bead('Gain').focus();
  await page.keyboard.press('Control+ArrowUp');
  const kinds = async () => curveIn(await bench.save(), id).treatments!.map(({ kind }) => kind);
  expect(await kinds()).toEqual(['gain', 'noise']);
  const [from, to] = await Promise.all([bead('Gain').boundingBox(), bead('Noise').boundingBox()]);
  await bench.drag({ x: from!.x + 7, y: from!.y + 7 }, { x: to!.x + 7, y: to!.y + 10 });
  expect(await kinds()).toEqual(['noise', 'gain']);
  await press(page, 'Gain is passed by');
  const muted = sampled(await bench.save(), id, '0:144');
  for (const [frame, value] of values) expect(muted.get(frame)!).toBeCloseTo(value / 3, 12);
});

test('a second take is kept, switched and dropped; baking replaces treatments by keys', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Quay');
  const id = 'carriage/translate.x';
  await chooseChannel(bench, id);
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
  await chooseChannel(bench, 'buoy/rotate.z');
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
  await chooseChannel(bench, id);
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
