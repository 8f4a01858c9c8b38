import { readFileSync } from 'node:fs';
import { expect, test } from './test';
import { Bench } from './pages';

test('what the engine computes shows: spans, reasons, what holds a part, clips and deformed meshes', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Jib crane');
  await page.keyboard.press('Control+1');
  await test.step('a constraint is a row of its part, with how it stands at the playhead', async () => {
    const rows = page.locator('kz-rows-panel');
    await bench.type('Frame of the playhead', '60');
    await expect(rows.getByText('rides on Claw')).toBeVisible();
    const row = rows.locator('.row.span', { hasText: 'rides on Claw' });
    await expect(row).toContainText('met');
    await bench.type('Frame of the playhead', '10');
    await expect(row).toContainText('later');
    await bench.type('Frame of the playhead', '150');
    await expect(row).toContainText('over');
  });
  await test.step('the sheet Links lists what holds it', async () => {
    await page.getByRole('tab', { name: 'Links' }).click();
    await page.locator('kz-rows-panel .row.span', { hasText: 'rides on Barge' }).click();
    const cards = page.locator('kz-links-sheet kz-constraint-card');
    await expect(cards).toHaveText([/rides on Claw\s*over/, /rides on Barge\s*off 0\.0 mm/]);
  });
  await test.step('the block rides with the claw: the view and the command line say the same', async () => {
    const file = await bench.save();
    const project = JSON.parse(readFileSync(file, 'utf8')) as { constraints: unknown[]; edition?: number };
    expect(project.constraints).toHaveLength(6);
    expect(project.edition).toBe(2);
  });
});

test('a target out of reach is told in its row and its sheet', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Jib crane');
  await page.keyboard.press('Control+1');
  await bench.row('mark').click();
  await bench.type('Frame of the playhead', '60');
  await bench.type('Place X', '9');
  const row = page.locator('kz-rows-panel .row.span', { hasText: 'reaches for Mark' });
  await row.scrollIntoViewIfNeeded();
  await expect(row).toContainText('too far');
  await row.click();
  await page.getByRole('tab', { name: 'Links' }).click();
  await expect(page.locator('kz-links-sheet kz-constraint-card')).toContainText('too far');
});
