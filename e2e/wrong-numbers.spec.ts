import { kaizen } from './cli';
import { Bench } from './pages';
import { expect, test } from './test';

/** What may be typed by mistake into any field. */
const TYPED = ['0', '-5', '1e9', '0.0001'];

/** Puts each of some numbers into every number field of a side sheet, as leaving the field does, all fields at once. */
async function typeEverywhere(bench: Bench, tab: string): Promise<void> {
  const { page } = bench;
  await page.getByRole('tab', { name: tab }).first().click();
  const fields = page.locator('kz-side-sheet input[inputmode=decimal]:enabled');
  await expect(fields).not.toHaveCount(0);
  for (const text of TYPED) {
    await fields.evaluateAll((inputs, typed) => {
      for (const input of inputs as HTMLInputElement[]) {
        input.value = typed;
        input.dispatchEvent(new Event('change'));
      }
    }, text);
    await bench.settled();
    expect(kaizen('validate', await bench.save()).err, `${text} in the fields of ${tab}`).toBe('');
  }
}

test('whatever is typed into the numbers of the shot, of a part and of a camera, the file can be opened', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  await typeEverywhere(bench, 'Shot');
  for (const part of ['float', 'shot']) {
    await bench.reveal(part);
    await bench.row(part).locator('.name').click();
    await typeEverywhere(bench, 'Part');
  }
});

test('whatever is typed into the numbers of keys, laws and treatments, the file can be opened', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Skip');
  await bench.row('skip/translate.x').locator('.name').click();
  await page.keyboard.press('Control+3');
  await page.keyboard.press('Shift+0');
  const key = await bench.place(180, 6.4, 'm');
  await page.mouse.click(key.x, key.y);
  await expect.poll(() => bench.field('Frame')).toBe('180');
  await page.getByRole('tab', { name: 'Curve' }).click();
  for (const kind of ['Noise', 'Clamp', 'Gain', 'Delay', 'Every n-th']) {
    await page.getByRole('button', { name: 'Lay over ▾', exact: true }).click();
    await page.getByRole('menuitem', { name: kind }).click();
    await expect(page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
  }
  await typeEverywhere(bench, 'Curve');
  await typeEverywhere(bench, 'Key');
});
