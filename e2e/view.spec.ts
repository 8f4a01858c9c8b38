import { foreignGlb } from './foreign-model';
import { Bench, drop } from './pages';
import { expect, test } from './test';

test('the view: picking, grips with steps, typed amounts, axes, the shot camera', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  const box = (await bench.view.boundingBox())!;

  await test.step('a click picks what is under it, a click beside nothing', async () => {
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
    await expect(page.getByRole('tab', { name: 'Part' })).toBeVisible();
    await page.mouse.click(box.x + 40, box.y + box.height - 60);
    await expect(page.getByRole('tab', { name: 'Shot' })).toBeVisible();
  });

  await test.step('Enter opens three fields at the pivot: amounts along the axes, numbers, Tab between', async () => {
    await bench.row('pump').click();
    const before = Number(await bench.field('Place Y'));
    await page.keyboard.press('2');
    await page.getByRole('button', { name: 'World' }).click();
    await bench.row('pump').click();
    await page.keyboard.press('Enter');
    const strip = page.getByRole('group', { name: 'Move Pump', exact: true });
    await expect(strip).toContainText('“by” goes along the world’s axes');
    await page.keyboard.press('Tab');
    await page.keyboard.type('by 500');
    await expect(strip, 'the strip stays where the part goes out of sight').toContainText('= 502.2');
    await expect(strip.getByRole('textbox', { name: 'Move Pump Y' })).toBeFocused();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('by 50/2 cm');
    await page.keyboard.press('Enter');
    await expect(strip).toBeHidden();
    await expect.poll(async () => Number(await bench.field('Place Y'))).toBeCloseTo(before + 0.25, 6);
    await bench.row('pump').click();
    await page.keyboard.press('Enter');
    await page.keyboard.type('9');
    await expect.poll(() => bench.field('Place X')).toBe('9.00');
    await page.keyboard.press('Escape');
    await expect.poll(() => bench.field('Place X')).toBe('2.72');
    const z = (await page.locator('kz-grips [data-grip="Z"] text').boundingBox())!;
    await page.mouse.click(z.x + z.width / 2, z.y + z.height / 2);
    await expect(strip.getByRole('textbox', { name: 'Move Pump Z' })).toBeFocused();
    await page.keyboard.press('Escape');
  });

  await test.step('a grip goes in steps, Esc gives it up', async () => {
    await page.getByRole('button', { name: 'Steps' }).click();
    const grip = page.locator('kz-grips [data-grip="X"] .solid');
    const at = (await grip.boundingBox())!;
    const from = { x: at.x + 8, y: at.y + 8 };
    await page.mouse.move(from.x, from.y);
    const view = page.getByRole('application');
    await expect(view).toHaveCSS('cursor', 'grab');
    await expect(view).toHaveAttribute('title', 'Drag to move along X, press to type the amount');
    await bench.drag(from, { x: from.x + 40, y: from.y + 4 }, false);
    await expect(page.locator('.chip-at')).toContainText('move X');
    await page.keyboard.press('Escape');
    await page.mouse.up();
    await expect.poll(() => bench.field('Place X')).toBe('2.72');
    await bench.drag(from, { x: from.x + 40, y: from.y + 4 });
    await expect.poll(async () => Number(await bench.field('Place X'))).toBeGreaterThan(2.77);
    const moved = Number(await bench.field('Place X')) - 2.72;
    expect(Math.abs(moved / 0.1 - Math.round(moved / 0.1))).toBeLessThan(0.06);
  });

  await test.step('size by its grip, all axes by the middle', async () => {
    await page.keyboard.press('4');
    await bench.settled();
    const middle = (await page.locator('kz-grips [data-grip="all"]').boundingBox())!;
    await bench.drag({ x: middle.x + 6, y: middle.y + 6 }, { x: middle.x + 48, y: middle.y + 6 });
    await expect.poll(() => bench.field('Size X')).toBe('1.50');
    await expect.poll(() => bench.field('Size Z')).toBe('1.50');
  });

  await test.step('V looks through the shot camera and back', async () => {
    await page.keyboard.press('v');
    await expect(page.getByText('Shot camera, 38 mm')).toBeVisible();
    await page.keyboard.press('v');
    await expect(page.getByText('35 mm')).toBeVisible();
  });
});

test('parts built from simple shapes: added, parented, removed, undone', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New, empty' }).click();
  const bench = new Bench(page);
  await expect(bench.canvas).toBeVisible();
  await page.getByRole('button', { name: 'Box', exact: true }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Gear', exact: true }).click();
  await page.getByRole('tab', { name: 'Links' }).click();
  await page.getByRole('combobox', { name: 'Ride on' }).selectOption({ label: 'Box' });
  await page.getByRole('tab', { name: 'Part' }).click();
  await bench.type('Place Y', '1');
  await page.keyboard.press('d');
  await expect(bench.row('gear/translate.y')).toBeVisible();
  await bench.row('box').click();
  await page.keyboard.press('Shift+Delete');
  await expect(bench.row('gear')).toBeHidden();
  await page.keyboard.press('Control+z');
  await expect(bench.row('gear/translate.y')).toBeVisible();
});

test('a model that is brought beside another comes into sight once its meshes are there', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New, empty' }).click();
  const bench = new Bench(page);
  await expect(bench.canvas).toBeVisible();
  await drop(page, [{ name: 'near.glb', bytes: foreignGlb() }]);
  await expect(bench.row('Mast')).toBeVisible();
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await drop(page, [{ name: 'far.glb', bytes: foreignGlb([-60, 0, 5]) }]);
  await expect(bench.row('Mast-2')).toBeVisible();
  const { x, y, width, height } = (await page.locator('kz-view canvas[data-state]').boundingBox())!;
  await expect
    .poll(async () => {
      const grip = await page.locator('kz-grips [data-grip="X"] .solid').boundingBox();
      return grip !== null && grip.x > x && grip.x < x + width && grip.y > y && grip.y < y + height;
    })
    .toBe(true);
});
