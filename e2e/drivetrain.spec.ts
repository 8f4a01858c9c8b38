import AxeBuilder from '@axe-core/playwright';
import { sampled } from './cli';
import { yard } from './made-up';
import { Bench, dropped, press, tab } from './pages';
import { expect, test } from './test';

test('the Drivetrain shows what drives what, follows the playhead, and a mechanism is changed in it', async ({
  page,
}) => {
  const bench = await dropped(page, yard());
  await bench.row('crank').click();
  await tab(page, 'Links');
  await press(page, 'Crank and rod …');
  await bench.row('rod').click();
  await bench.row('pump').click();
  await bench.goTo(11);
  await page.getByRole('link', { name: 'Drivetrain' }).click();
  const network = page.getByRole('region', { name: 'Network of drivers and constraints' });
  const node = (name: string) => network.getByRole('button', { name, exact: true });
  const pump = node('Pump, place X, from Pump, expression');
  await expect(pump).toBeVisible();
  await test.step('what it shows are the numbers that are sampled', async () => {
    const file = await bench.save();
    const shown = async () =>
      Number((await pump.locator('.numbers').innerText()).replace(/[^0-9.−-]/g, '').replace('−', '-'));
    expect(await shown()).toBeCloseTo(sampled(file, 'pump/translate.x', '11:11').get(11)!, 3);
    await bench.type('Frame of the playhead', '40');
    await expect.poll(shown).toBeCloseTo(sampled(file, 'pump/translate.x', '40:40').get(40)!, 3);
  });
  await test.step('of a mechanism it draws the motion, and takes another length of the rod', async () => {
    await node('Crank, crank and rod, from Crank, crank angle').first().click();
    const aside = page.getByRole('complementary', { name: 'What is chosen' });
    await expect(aside.locator('kz-mechanism-plots svg')).toHaveCount(4);
    await expect(aside.locator('kz-mechanism-plots .note')).toContainText(
      'from 0.800 to 1.500; turns back at 0.0°, 180.0°',
    );
    await bench.type('Rod of slide', '1.3');
    await expect(aside.locator('kz-mechanism-plots .note')).toContainText('from 0.950 to 1.650');
  });
  await test.step('only what the rod is driven by', async () => {
    await node('Rod, turn Z, from Rod, expression').click();
    await press(page, 'What drives this');
    await expect(node('Rod, turn Z, from Rod, expression')).toBeVisible();
    await expect(pump).toHaveCount(0);
  });
  const axe = await new AxeBuilder({ page }).analyze();
  expect(axe.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
  await press(page, 'On the Bench');
  await expect(bench.row('rod')).toBeVisible();
});

test('a carriage with all that rides on it is folded into one piece, and opened again', async ({ page }) => {
  await Bench.openSample(page, 'Rake carriage');
  await page.getByRole('link', { name: 'Drivetrain' }).click();
  const network = page.getByRole('region', { name: 'Network of drivers and constraints' });
  await expect(network.locator('.node.driver').first()).toBeVisible();
  await press(page, 'Folded');
  await expect(network.locator('.node')).toHaveCount(1);
  await expect(network.locator('.node')).toContainText(/its links\s*\d\d pieces/);
  await network.getByRole('button', { name: 'Open Carriage' }).click();
  await expect(network.locator('.node.driver').first()).toBeVisible();
  await expect(network.getByRole('button', { name: 'Fold Carriage' })).toHaveAttribute(
    'aria-expanded',
    'true',
  );
});

test('the network as a tree: walked by arrow keys, a piece chosen by Enter, interlocks in it', async ({
  page,
}) => {
  await Bench.openSample(page, 'Sluice');
  await page.getByRole('link', { name: 'Drivetrain' }).click();
  await page.getByRole('button', { name: 'As a tree' }).click();
  const tree = page.getByRole('tree', { name: 'The network as a tree' });
  const line = (name: RegExp) => tree.getByRole('treeitem', { name });
  await line(/^▸?\s*Screw/).focus();
  await page.keyboard.press('ArrowRight');
  await expect(line(/turn Y/).first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await expect(line(/from Screw, waits 6 f/)).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.locator('kz-interlock-card')).toContainText('6 f after Skip, place X stops at f 72');
  const axe = await new AxeBuilder({ page }).analyze();
  expect(axe.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
  await page.getByRole('button', { name: 'Timing sheet' }).click();
  await expect(page.getByRole('region', { name: 'Timing sheet' })).toContainText(
    '12 f after Screw, turn Y stops',
  );
  const sheet = await new AxeBuilder({ page }).analyze();
  expect(sheet.violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([]);
});
