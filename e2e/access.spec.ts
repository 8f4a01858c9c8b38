import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { Bench } from './pages';
import { expect, test } from './test';

async function serious(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`);
}

for (const theme of ['light', 'dark'] as const) {
  test(`nothing serious for screen readers and eyes, ${theme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme });
    await page.goto('/');
    await expect(page.getByRole('button', { name: /^Open the sample/ })).toHaveCount(2);
    expect(await serious(page)).toEqual([]);
    const bench = await Bench.openSample(page, 'Brine wheel');
    await bench.row('wheel').click();
    await bench.type('Place X', '0.3');
    await page.keyboard.press('3');
    expect(await serious(page)).toEqual([]);
    await bench.row('wheel/rotate.y').getByText('turn').click();
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+1');
    await page.keyboard.press('c');
    expect(await serious(page)).toEqual([]);
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await serious(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await expect(page.locator('mat-dialog-container')).toHaveCount(0);
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('combobox', { name: 'Find a command' })).toBeFocused();
    expect(await serious(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Hand over' }).click();
    await expect(page.getByRole('button', { name: 'Write .glb' })).toBeVisible();
    expect(await serious(page)).toEqual([]);
  });
}

test('by keyboard alone: open, walk the rows, key, shape, loop, play, change a shortcut', async ({
  page,
}) => {
  await page.goto('/');
  const card = page.getByRole('button', { name: 'Open the sample Brine wheel' });
  await expect(card).toBeVisible();
  await card.focus();
  await page.keyboard.press('Enter');
  const bench = new Bench(page);
  await bench.ready();
  await bench.row('wheel').focus();
  await page.keyboard.press('ArrowDown');
  await expect(bench.row('wheel/rotate.y')).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(() => bench.field('Frame of the playhead')).toBe('48');
  await page.keyboard.press('k');
  await page.keyboard.press('Control+ArrowUp');
  await expect.poll(() => bench.value('wheel/rotate.y')).toBe(181);
  await page.keyboard.press('Control+ArrowRight');
  await expect.poll(() => bench.field('Frame')).toBe('49');

  await page.keyboard.press('Control+k');
  await expect(page.getByRole('combobox', { name: 'Find a command' })).toBeFocused();
  await page.keyboard.type('end range');
  await page.keyboard.press('Enter');
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);
  await expect.poll(() => bench.field('Frame of the playhead')).toBe('240');

  await page.keyboard.press('?');
  await page.getByRole('button', { name: /^Shortcut of Start of the range/ }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('b');
  await page.keyboard.press('Escape');
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);
  await page.keyboard.press('b');
  await expect.poll(() => bench.field('Frame of the playhead')).toBe('0');
  await page.reload();
  await bench.ready();
  await bench.goTo(7);
  await page.keyboard.press('b');
  await expect.poll(() => bench.field('Frame of the playhead')).toBe('0');
});
