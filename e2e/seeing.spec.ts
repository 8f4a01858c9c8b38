import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { quay } from './made-up';
import { dropped } from './pages';
import { expect, test } from './test';

/** What the view shows, once it is drawn. */
async function picture(page: Page): Promise<string> {
  await expect(page.locator('kz-view canvas')).toHaveAttribute('data-state', 'drawn');
  return page.locator('kz-view canvas').evaluate((canvas) => (canvas as HTMLCanvasElement).toDataURL());
}

test('parts shown alone, hidden and locked while one works; the project says nothing of it', async ({
  page,
}) => {
  const bench = await dropped(page, quay());
  const before = await bench.save();
  await bench.row('rack').click();
  await bench.settled();
  const all = await picture(page);
  await page.keyboard.press('Shift+O');
  await expect(page.getByRole('button', { name: 'Only these' })).toBeVisible();
  await expect.poll(() => picture(page)).not.toBe(all);
  await page.keyboard.press('Shift+O');
  await expect.poll(() => picture(page)).toBe(all);
  await page.keyboard.press('Shift+I');
  await expect.poll(() => picture(page)).not.toBe(all);
  await page.getByRole('button', { name: 'Show Tine rack again' }).click();
  await expect.poll(() => picture(page)).toBe(all);
  await page.keyboard.press('Shift+L');
  await expect(page.getByRole('button', { name: 'Unlock Tine rack' })).toBeVisible();
  await bench.row('base').click();
  await page.keyboard.press('Control+Shift+A');
  await expect(page.getByRole('button', { name: 'Selected 4' })).toBeVisible();
  expect(readFileSync(await bench.save(), 'utf8')).toBe(readFileSync(before, 'utf8'));
});
