import { sampled } from './cli';
import { Bench, drop } from './pages';
import { expect, test } from './test';

test('the Bench made while Projects is left alone is out of reach there, and is the one that shows what is opened', async ({
  page,
}) => {
  await page.goto('/');
  const made = page.locator('kz-bench');
  await expect(made).toBeAttached();
  await made.evaluate((element) => element.setAttribute('data-made', 'ahead'));
  await expect(made).toBeHidden();
  await expect(page.getByRole('textbox', { name: 'Frame of the playhead' })).toHaveCount(0);
  await test.step('a file that can’t be read changes nothing of it', async () => {
    await drop(page, [{ name: 'broken.kaizen.json', bytes: new TextEncoder().encode('{') }]);
    await expect(page.locator('kz-notice-line')).toContainText('Nothing was changed');
    await expect(page.locator('kz-bench[data-made=ahead]')).toBeAttached();
  });
  await page.getByRole('button', { name: 'Open the sample Quay', exact: true }).click();
  const bench = new Bench(page);
  await bench.ready();
  await expect(page.locator('kz-bench[data-made=ahead]')).toBeVisible();
  await expect(made).toHaveCount(1);
  await bench.goTo(40);
  const value = await bench.value('carriage/translate.x');
  const file = await bench.save();
  expect(value).toBeCloseTo(sampled(file, 'carriage/translate.x', '40:40').get(40)!, 2);
});
