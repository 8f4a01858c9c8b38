import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { Bench } from './pages';
import { expect, test } from './test';

/**
 * What axe finds serious, by day, and of what the night changes, the colours, by night. It is run in the page itself, which has no
 * frames, as a second page for its report takes longer than it; what it finds good it need not describe, which takes as long again.
 */
async function serious(page: Page): Promise<string[]> {
  const axe = () => new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode();
  const byDay = await axe().analyze();
  await show(page, 'night');
  const byNight = await axe().withRules('color-contrast').analyze();
  await show(page, 'day');
  return [...byDay.violations, ...byNight.violations]
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`);
}

/** Shows the page in a theme, colours that fade into each other at once. */
async function show(page: Page, theme: 'day' | 'night'): Promise<void> {
  await page.evaluate((name) => {
    document.documentElement.dataset['theme'] = name;
    for (const fading of document.getAnimations()) if (fading instanceof CSSTransition) fading.finish();
  }, theme);
}

test.describe('nothing serious for screen readers and eyes', () => {
  test('Projects, a posed part, curves, the tray', async ({ page }) => {
    await page.goto('/');
    await expect(page.getByRole('button', { name: /^Open the sample/ })).toHaveCount(10);
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
    await page.keyboard.press('n');
    await page.keyboard.press('Shift+t');
    await page.getByRole('button', { name: /loose edit/ }).click();
    await page.getByRole('button', { name: 'Rows', exact: true }).click();
    expect(await serious(page)).toEqual([]);
  });

  test('Time, Pose, rates, treatments', async ({ page }) => {
    const bench = await Bench.openSample(page, 'Brine wheel');
    await bench.row('wheel').click();
    await bench.type('Place X', '0.3');
    await page.keyboard.press('n');
    await page.keyboard.press('Shift+t');
    for (const tab of ['Time', 'Pose']) {
      await page.getByRole('tab', { name: tab }).click();
      if (tab === 'Pose') await page.getByRole('button', { name: 'Keep this pose' }).click();
      expect(await serious(page)).toEqual([]);
    }
    await bench.row('wheel/rotate.y').getByText('turn').click();
    await page.keyboard.press('Control+3');
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+l');
    await page.getByRole('tab', { name: 'Key', exact: false }).first().click();
    expect(await serious(page)).toEqual([]);
    await page.getByRole('tab', { name: 'Curve' }).click();
    await page.getByRole('button', { name: 'Lay over ▾', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Noise' }).click();
    await expect(page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
    expect(await serious(page)).toEqual([]);
  });

  test('dialogs and Hand over', async ({ page }) => {
    const bench = await Bench.openSample(page, 'Brine wheel');
    await bench.row('wheel/rotate.y').getByText('turn').click();
    await page.getByRole('tab', { name: 'Curve' }).click();
    await page.getByRole('button', { name: 'Paste a table…' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await serious(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await expect(page.locator('mat-dialog-container')).toHaveCount(0);
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await serious(page)).toEqual([]);
    await page.getByRole('button', { name: 'Reset all' }).hover();
    await expect(page.locator('mat-tooltip-component').first()).toBeVisible();
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
});

test('by keyboard alone: open, walk the rows, key, shape, loop, play, change a shortcut', async ({
  page,
}) => {
  await page.goto('/');
  const card = page.getByRole('button', { name: 'Open the sample Brine wheel' });
  await expect(card).toBeVisible();
  await page.keyboard.press('Control+a');
  expect(await page.evaluate(() => getSelection()?.toString())).toBe('');
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

  // Typed at once, before the palette is there: nothing of it goes to the Bench.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('end range');
  await expect(page.getByRole('combobox', { name: 'Find a command' })).toHaveValue('end range');
  await page.keyboard.press('Enter');
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);
  await expect.poll(() => bench.field('Frame of the playhead')).toBe('240');

  // Closed and wanted again at once: that counts, too. What the command makes is scrolled into sight.
  await page.keyboard.press('Control+k');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('new number');
  await expect(page.getByRole('combobox', { name: 'Find a command' })).toHaveValue('new number');
  await page.keyboard.press('Enter');
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Remove number' })).toBeInViewport();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Remove number' })).toHaveCount(0);

  await page.keyboard.press('?');
  await expect(page.locator('mat-dialog-container:focus-within')).toBeVisible();
  const shortcut = page.getByRole('button', { name: /^Shortcut of Start of the range/ });
  await shortcut.focus();
  await expect(shortcut).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(shortcut).toHaveText('press keys');
  await page.keyboard.press('b');
  await expect(shortcut).toHaveText('B');
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

test('by keyboard alone: Capture and its Scope, a gap, Stakes, a pose, a marker, the tray', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Skip');
  await bench.goTo(100);
  await bench.row('skip').focus();
  await page.keyboard.press('Enter');

  await page.keyboard.press('j');
  await expect(page.getByRole('status').filter({ hasText: 'Open gap' })).toContainText('later by 24 f');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('status').filter({ hasText: 'Open gap' })).toHaveCount(0);
  await page.keyboard.press('j');
  await page.keyboard.press('j');
  await expect(page.getByText('Open a gap at f 100: 3 keys on 1 channel')).toBeVisible();
  await page.keyboard.press('Control+z');

  await page.keyboard.press('Shift+t');
  await bench.goTo(200);
  await page.keyboard.press('Shift+t');
  await page.getByRole('tab', { name: 'Part' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Links' })).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Time' })).toBeFocused();
  const goal = page.getByRole('textbox', { name: 'Stake of f 200 goes to' });
  await goal.focus();
  await page.keyboard.type('220');
  await page.keyboard.press('Enter');
  await page.getByRole('tab', { name: 'Time' }).focus();
  await page.keyboard.press('Shift+s');
  await expect(page.getByText('Stretch between 2 Stakes: 3 keys on 1 channel')).toBeVisible();
  await page.keyboard.press('Control+z');

  await page.keyboard.press('Control+Shift+c');
  await expect(page.getByText(/^The pose of \d+ parts at f 200 copied$/)).toBeVisible();
  await bench.goTo(40);
  await page.keyboard.press('Control+Shift+v');
  await expect(page.getByText(/waits?: Capture is off/)).toBeVisible();
  const tray = page.getByRole('button', { name: /loose edits?/ });
  await tray.focus();
  await page.keyboard.press('Enter');
  await expect(tray).toHaveAttribute('aria-expanded', 'true');
  await page.keyboard.press('Shift+d');
  await expect(page.getByRole('region', { name: 'Loose edits' })).toBeHidden();
  await bench.row('skip').focus();
  await page.keyboard.press('n');
  await expect(page.getByRole('textbox', { name: 'Name of the marker note' })).toBeVisible();
});
