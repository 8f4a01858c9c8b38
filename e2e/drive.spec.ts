import { readFileSync } from 'node:fs';
import { kaizen, placeOf, sampled } from './cli';
import { yard } from './made-up';
import { dropped, press, tab } from './pages';
import { expect, test } from './test';

interface Saved {
  readonly drivers?: readonly Readonly<Record<string, unknown>>[];
}
const driversIn = (file: string) => (JSON.parse(readFileSync(file, 'utf8')) as Saved).drivers ?? [];

/** World places of points of parts, a list a frame, as `sample --points` prints them. */
function pointsOf(file: string, points: string, frames: string): readonly (readonly number[])[] {
  const { out, err, code } = kaizen('sample', file, '--points', points, '--frames', frames);
  if (code !== 0) throw new Error(err);
  return out
    .trim()
    .split('\n')
    .slice(1)
    .map((row) => row.split(',').slice(1).map(Number));
}

test('blocks echo the landing of the first one only, later and weaker; taken away, baked, brought back', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  await bench.goTo(94);
  await bench.row('hook').click();
  await bench.row('second').click({ modifiers: ['Control'] });
  await bench.row('third').click({ modifiers: ['Control'] });
  await tab(page, 'Links');
  await bench.type('Each later by', '3');
  await bench.type('Each times', '0.4');
  await press(page, 'From here on');
  await press(page, 'Let them echo Block on the hook');
  const file = await bench.save();
  expect(driversIn(file)).toEqual([
    expect.objectContaining({ target: 'second/translate.y', delay: 3, gain: 0.4, from: 94 }),
    expect.objectContaining({ target: 'third/translate.y', delay: 6, gain: 0.16, from: 94 }),
  ]);
  const second = sampled(file, 'second/translate.y', '0:120:1');
  const leader = sampled(file, 'hook/translate.y', '0:120:1');
  for (let frame = 0; frame <= 97; frame++) expect(second.get(frame)).toBe(2);
  for (const frame of [98, 103, 110])
    expect(second.get(frame)! - 2).toBeCloseTo(0.4 * (leader.get(frame - 3)! - 1), 12);
  await test.step('one driver by its card: weaker, baked to keys, and back', async () => {
    await bench.row('second').click();
    const card = page.locator('kz-driver-card');
    await expect(card).toContainText('echo, from Block on the hook, place Y');
    await bench.type('Strength of place Y', '0.28');
    await card.getByRole('button', { name: 'Bake', exact: true }).click();
    const baked = sampled(await bench.save(), 'second/translate.y', '0:120:1');
    expect(baked.get(103)! - 2).toBeCloseTo(0.28 * (leader.get(100)! - 1), 12);
    await card.getByRole('button', { name: 'Bring back', exact: true }).click();
    expect(driversIn(await bench.save())[0]).toMatchObject({ gain: 0.28 });
    expect(driversIn(await bench.save())[0]).not.toHaveProperty('muted', true);
    await bench.row('third').click();
    await bench.type('Strength of place Y', '0.11');
    const weaker = sampled(await bench.save(), 'third/translate.y', '0:120:1');
    for (let frame = 0; frame <= 100; frame++) expect(weaker.get(frame)).toBe(2);
    expect(weaker.get(108)! - 2).toBeCloseTo(0.11 * (leader.get(102)! - 1), 12);
  });
  await test.step('a ring is refused, naming what runs in it', async () => {
    await bench.row('hook').click();
    await press(page, 'Follow …');
    await bench.row('second').click();
    await expect(
      page.getByText(/hook\/translate\.y.*second\/translate\.y|second\/translate\.y.*hook\/translate\.y/),
    ).toBeVisible();
    expect(driversIn(await bench.save())).toHaveLength(2);
  });
});

test('crank, rod and pump picked one after the other stay together at every angle; a second key makes it faster', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  await bench.row('crank').click();
  await tab(page, 'Links');
  await press(page, 'Crank and rod …');
  await expect(page.getByText('Pick the rod on the pin of Crank')).toBeVisible();
  await bench.row('rod').click();
  await expect(page.getByText('Pick what Rod pushes')).toBeVisible();
  await bench.row('pump').click();
  await expect(page.getByText('Read off the parts: crank 0.35 m, rod 1.15 m')).toBeVisible();
  const file = await bench.save();
  const joints = 'crank:0.35,0,0;rod:0,0,0;rod:1.15,0,0;pump:0,0,0';
  for (const row of pointsOf(file, joints, '0:120:7.3')) {
    for (const joint of [0, 6])
      for (let n = joint; n < joint + 3; n++) expect(Math.abs(row[n]! - row[n + 3]!)).toBeLessThan(1e-9);
  }
  expect(placeOf(file, 'pump', 11)[0]).not.toBeCloseTo(placeOf(file, 'pump', 0)[0]!, 2);
});

test('one gear turns another by their teeth; a formula is told what is wrong with it while it is typed', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  await bench.row('small').click();
  await tab(page, 'Links');
  await press(page, 'Gear …');
  await bench.row('large').click();
  await expect(page.getByText('Read off the parts: 17 : 53 teeth')).toBeVisible();
  const turns = sampled(await bench.save(), 'large/rotate.y', '0:120:60');
  expect(turns.get(120)! - turns.get(0)!).toBeCloseTo((-720 * 17) / 53, 9);
  await test.step('a formula', async () => {
    await bench.row('third').click();
    await press(page, 'Formula …');
    await bench.row('hook').click();
    const formula = page.getByRole('textbox', { name: 'Formula of place Y' });
    await formula.fill('x * (2 +');
    await expect(page.locator('kz-driver-card .bad[role="status"]')).not.toBeEmpty();
    await formula.fill('x * 2 - 1');
    await formula.press('Enter');
    const made = sampled(await bench.save(), 'third/translate.y', '20:94:74');
    expect([made.get(20), made.get(94)]).toEqual([5, 1]);
    await formula.fill('1 / (x - x)');
    await formula.press('Enter');
    await expect(page.locator('kz-driver-card .why')).toContainText(
      /Not met at f \d+: the result is not finite; look for a division by 0/,
    );
  });
});

test('a channel’s row dragged onto another follows it; its menu drives it by what is picked then', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  const middle = async (id: string) => {
    await bench.reveal(id);
    const { x, y, height } = (await bench.row(id).boundingBox())!;
    return { x: x + 60, y: y + height / 2 };
  };
  const drag = async (from: string, to: string, release = true) =>
    bench.drag(await middle(from), await middle(to), release);
  await drag('small/rotate.y', 'crank/rotate.z', false);
  await expect(page.locator('kz-cue-card')).toContainText('Small gear, turn Y will follow Crank, turn Z');
  await page.mouse.up();
  await page.getByRole('menuitem', { name: 'Echo', exact: true }).click();
  const file = await bench.save();
  expect(driversIn(file)).toEqual([
    expect.objectContaining({ kind: 'echo', target: 'small/rotate.y', input: 'crank/rotate.z' }),
  ]);
  await test.step('a ring is told before it is let go, and does nothing', async () => {
    // The menu goes slowly; until it has gone it lies over the rows.
    await expect(page.locator('.cdk-overlay-backdrop')).toHaveCount(0);
    await drag('crank/rotate.z', 'small/rotate.y', false);
    await expect(page.locator('kz-cue-card')).toContainText('a ring');
    await page.mouse.up();
    await expect(page.getByRole('menuitem')).toHaveCount(0);
    expect(driversIn(await bench.save())).toHaveLength(1);
  });
  await test.step('the menu of the row', async () => {
    await bench.row('hook/translate.y').click({ button: 'right', position: { x: 60, y: 10 } });
    await page.getByRole('menuitem', { name: 'Map …' }).click();
    await expect(page.getByText('Pick what Block on the hook, place Y is read from')).toBeVisible();
    await bench.row('crank/rotate.z').locator('.name').click();
    await bench.row('hook').click();
    await tab(page, 'Links');
    const plot = page.getByRole('img', { name: /^Curve of the map, 2 points/ });
    const box = (await plot.boundingBox())!;
    const point = (await plot.locator('circle.point').last().boundingBox())!;
    const from = { x: point.x + point.width / 2, y: point.y + point.height / 2 };
    await bench.drag(from, { x: from.x - box.width / 4, y: from.y + box.height / 3 });
    const [, map] = driversIn(await bench.save());
    const keys = (map!['curve'] as { keys: { frame: number; value: number }[] }).keys;
    expect(keys[0]).toMatchObject({ frame: 0, value: 0 });
    expect(keys[1]!.frame).toBeGreaterThan(0.5);
    expect(keys[1]!.frame).toBeLessThan(0.9);
    expect(keys[1]!.value).toBeLessThan(0.8);
    await plot.dblclick({ position: { x: box.width / 2, y: 20 } });
    await expect(page.getByRole('img', { name: /^Curve of the map, 3 points/ })).toBeVisible();
    await press(page, 'In the Chart');
    const chart = page.locator('kz-map-chart');
    await expect(chart).toContainText('Block on the hook, place Y over Crank, turn Z');
    await chart.getByRole('button', { name: /^Point 2:/ }).focus();
    await page.keyboard.press('ArrowUp');
    await bench.type('Input of the point', '0.4');
    await bench.type('Output of the point', '1.25');
    await chart.getByRole('button', { name: 'Flat', exact: true }).click();
    const edited = (driversIn(await bench.save())[1]!['curve'] as { keys: object[] }).keys;
    expect(edited[1]).toMatchObject({ frame: 0.4, value: 1.25, out: { mode: 'flat' } });
    await chart.getByRole('button', { name: /^Point 2:/ }).focus();
    await page.keyboard.press('Delete');
    await expect(chart.getByRole('button', { name: /^Point/ })).toHaveCount(2);
    await press(page, 'Back to time');
    await expect(chart).toHaveCount(0);
  });
});

test('copies of a block in phase: live from the one master, a quarter of the cycle apart', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  await bench.row('hook').click();
  await tab(page, 'Part');
  await bench.type('How many', '3');
  await press(page, 'In phase, live');
  await page
    .getByRole('group', { name: 'How the delay is given' })
    .getByRole('button', { name: 'Degrees' })
    .click();
  await bench.type('Each later by', '90');
  await press(page, 'Make 3 copies');
  await expect(page.getByText('3 copies of Block on the hook were made')).toBeVisible();
  const file = await bench.save();
  const echoes = driversIn(file) as readonly { readonly target: string; readonly delay: number }[];
  expect(echoes.map(({ delay }) => delay)).toEqual([30, 60, 90]);
  const master = sampled(file, 'hook/translate.y', '0:120:1');
  for (const { target, delay } of echoes) {
    const copy = sampled(file, target, '0:120:1');
    for (const frame of [delay + 5, 110]) expect(copy.get(frame)!).toBeCloseTo(master.get(frame - delay)!, 9);
  }
});
