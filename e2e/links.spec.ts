import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { placeOf, sampled } from './cli';
import { dropped } from './pages';
import { quay } from './made-up';
import { expect, test } from './test';

/** Drags a row by the middle of one onto the middle of another, and stops before it is let go. */
async function carry(page: Page, from: string, to: string): Promise<void> {
  const [a, b] = [
    await page.locator(`[data-row="${from}"]`).boundingBox(),
    await page.locator(`[data-row="${to}"]`).boundingBox(),
  ];
  await page.mouse.move(a!.x + 90, a!.y + a!.height / 2);
  await page.mouse.down();
  await page.mouse.move(a!.x + 96, a!.y + a!.height / 2 + 8);
  await page.mouse.move(b!.x + 96, b!.y + b!.height / 2, { steps: 4 });
}

function distance(a: readonly number[], b: readonly number[]): number {
  return Math.hypot(...a.map((n, i) => n - b[i]!));
}

test('a rack dragged onto its carriage: the cue is read first, its place stays, both motions go on', async ({
  page,
}) => {
  const bench = await dropped(page, quay());
  await page.keyboard.press('Control+1');
  await bench.goTo(21);
  const before = await bench.save();
  await carry(page, 'rack', 'carriage');
  const cue = page.locator('kz-ride-cue kz-cue-card');
  await expect(cue).toContainText('Tine rack will ride on Rake carriage');
  await expect(cue).toContainText('its place in the world stays');
  await expect(cue).toContainText('jump 0.0 mm');
  await expect(page.locator('kz-ride-cue svg .seat')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(cue).toBeHidden();
  await page.mouse.up();
  await carry(page, 'rack', 'carriage');
  await page.mouse.up();
  await expect(
    page.getByText('Tine rack rides on Rake carriage: its place in the world stays'),
  ).toBeVisible();
  const after = await bench.save();
  const at = (file: string, frame: number) => placeOf(file, 'rack', frame);
  expect(distance(at(before, 21), at(after, 21))).toBeLessThan(1e-9);
  expect(at(after, 60)[0]! - at(after, 0)[0]!).toBeCloseTo(7.3, 9);
  expect(sampled(after, 'rack/rotate.z', '0:60:5')).toEqual(sampled(before, 'rack/rotate.z', '0:60:5'));
  await test.step('a ring is refused in one sentence, and nothing changes', async () => {
    await carry(page, 'carriage', 'rack');
    await expect(cue).toContainText(
      'Rake carriage can’t ride on Tine rack: Tine rack rides on Rake carriage',
    );
    await page.mouse.up();
    expect(readFileSync(await bench.save(), 'utf8')).toBe(readFileSync(after, 'utf8'));
  });
  await test.step('released by the sheet, its motion in the world stays', async () => {
    await bench.row('rack').click();
    await page.getByRole('tab', { name: 'Links' }).click();
    await page.getByRole('button', { name: 'Motion', exact: true }).click();
    await page.getByRole('button', { name: 'Release' }).click();
    const free = await bench.save();
    for (const frame of [0, 21, 37, 60])
      expect(distance(at(after, frame), at(free, frame))).toBeLessThan(1e-9);
    await page.keyboard.press('Control+z');
  });
});

test('a block is attached by picking its carrier, set down, and stays there; its span is dragged', async ({
  page,
}) => {
  const bench = await dropped(page, quay());
  await page.keyboard.press('Control+1');
  await bench.row('block').click();
  await page.getByRole('tab', { name: 'Links' }).click();
  await bench.goTo(20);
  await page.getByRole('button', { name: 'Attach …' }).click();
  await expect(page.getByText('Pick what carries Salt block')).toBeVisible();
  await bench.row('block').click();
  await expect(page.getByText('Salt block itself is no answer')).toBeVisible();
  await bench.row('carriage').click();
  await expect(page.getByText('Pick what carries')).toBeHidden();
  await expect(page.locator('kz-constraint-card')).toContainText('rides on Rake carriage');
  const span = page.locator('kz-rows-panel .row.span', { hasText: 'rides on Rake carriage' });
  const box = (await span.boundingBox())!;
  const x = await bench.frameX(44);
  await page.mouse.move(x - 3, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move((await bench.frameX(50)) - 3, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  const file = await bench.save();
  const saved = JSON.parse(readFileSync(file, 'utf8')) as { constraints: { start: number; end: number }[] };
  expect(saved.constraints).toMatchObject([
    { kind: 'attach', part: 'block', target: 'carriage', start: 20, end: 50 },
  ]);
  const at = (frame: number) => placeOf(file, 'block', frame);
  const carriage = (frame: number) => placeOf(file, 'carriage', frame);
  for (const frame of [20, 33, 50])
    expect(distance(at(frame), at(20))).toBeCloseTo(distance(carriage(frame), carriage(20)), 9);
  expect(distance(at(80), at(50))).toBeLessThan(1e-9);
  await test.step('baked to keys every frame is where it was, and it comes back', async () => {
    await bench.row('block').click();
    await page.getByRole('button', { name: 'Bake to keys' }).click();
    const baked = await bench.save();
    for (const frame of [0, 20, 41, 50, 90])
      expect(distance(placeOf(baked, 'block', frame), at(frame))).toBeLessThan(1e-9);
    await page.getByRole('button', { name: 'Bring back' }).click();
    expect(readFileSync(await bench.save(), 'utf8')).toBe(readFileSync(file, 'utf8'));
  });
});

test('the hook is planted twice while its crane slides: the elbow bends, the tip stays', async ({ page }) => {
  const bench = await dropped(page, quay());
  await page.keyboard.press('Control+1');
  const before = await bench.save();
  for (const name of ['Base', 'Boom', 'Jib']) {
    await bench.settled();
    const open = page.getByRole('button', { name: `Open ${name}`, exact: true });
    if (await open.isVisible()) await open.click();
  }
  await bench.settled();
  await bench.row('hook').click();
  await page.getByRole('tab', { name: 'Links' }).click();
  for (const [from, to] of [
    [83, 107],
    [20, 44],
  ] as const) {
    await bench.row('hook').click();
    await bench.goTo(from);
    await page.getByRole('button', { name: 'Plant the arm’s end' }).click();
    await expect(page.getByText('Hook goal stays where it stands').first()).toBeVisible();
    expect(to - from).toBe(24);
  }
  const file = await bench.save();
  const tip = (frame: number) => placeOf(file, 'hook', frame);
  for (const [from, to] of [
    [83, 107],
    [20, 44],
  ] as const)
    for (let frame = from; frame <= to; frame += 3)
      expect(distance(tip(frame), tip(from))).toBeLessThan(1e-9);
  const pop = distance(tip(107), tip(108));
  expect(pop, 'let go without a jump').toBeLessThan(0.05);
  expect(distance(tip(0), placeOf(before, 'hook', 0))).toBeLessThan(1e-9);
  await bench.row('jib').click();
  await expect(page.locator('kz-links-sheet')).toContainText('Others held by it');
});
