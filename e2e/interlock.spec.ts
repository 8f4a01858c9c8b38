import { sampled } from './cli';
import { sluiceWorks } from './made-up';
import { chooseChannel, curveIn, dropped, press, readJson, tab, type Bench } from './pages';
import { expect, test } from './test';

const SKIP = 'skip/translate.x';
const BOARD = 'board/translate.y';
const framesIn = (file: string, channel: string) => curveIn(file, channel).keys.map(({ frame }) => frame);

/** Where the peg of a key is on the page, in Ticks. */
async function peg(bench: Bench, channel: string, frame: number): Promise<{ x: number; y: number }> {
  await bench.reveal(channel);
  const row = (await bench.row(channel).boundingBox())!;
  return { x: await bench.frameX(frame), y: row.y + row.height / 2 };
}

async function choose(bench: Bench, channel: string, frame: number, adding = false): Promise<void> {
  const { x, y } = await peg(bench, channel, frame);
  if (adding) await bench.page.keyboard.down('Control');
  await bench.page.mouse.click(x, y);
  if (adding) await bench.page.keyboard.up('Control');
  await bench.settled();
}

test('a sluice board opens after the skip stops and shuts after it has left, however the skip is retimed', async ({
  page,
}) => {
  const bench = await dropped(page, sluiceWorks());
  await page.getByRole('button', { name: 'Ticks', exact: true }).first().click();
  const thread = page.locator('[data-kind="thread"]');
  const card = page.locator('kz-interlock-card');
  await test.step('two keys tied: the board opens 24 frames after the skip stops; six would do', async () => {
    await choose(bench, SKIP, 132);
    await choose(bench, BOARD, 156, true);
    await page.keyboard.press('Control+j');
    await expect(thread).toContainText('24 f after Skip, place X stops at f 132');
    await thread.click();
    await bench.type('How long the key waits', '6');
    await expect(thread).toContainText('+18 f');
    expect(framesIn(await bench.save(), BOARD)).toEqual([156, 176, 240, 260]);
  });
  await test.step('it shuts just 12 frames after the skip has passed 6.2 m on its way back', async () => {
    await choose(bench, BOARD, 240);
    await tab(page, 'Key');
    await press(page, 'After a value …');
    await bench.row(SKIP).click();
    await bench.type('Value that is passed', '6.2');
    await card
      .getByRole('combobox', { name: 'Which way the value is passed' })
      .selectOption({ label: 'falling' });
    await bench.type('How long the key waits', '12');
    await card.getByRole('button', { name: 'Just then' }).click();
    const file = await bench.save();
    const shut = framesIn(file, BOARD)[2]!;
    expect(sampled(file, SKIP, `${shut - 12}:${shut - 12}`).get(shut - 12)!).toBeCloseTo(6.2, 6);
    expect(framesIn(file, BOARD)[3]! - shut).toBeCloseTo(20, 9);
    await expect(card).toContainText('met');
    // boxes of 0.4 m, 1.6 m beside each other and the raised one 0.8 m above the other
    await expect(card).toContainText(`clear by ${Math.hypot(1.2, 0.4).toFixed(3)} m`);
  });
  await test.step('the skip pushed by 19 frames and stretched: order and gaps stay', async () => {
    const gaps = (file: string) => {
      const [, stops, leaves] = framesIn(file, SKIP);
      const [opens, open, shuts, shut] = framesIn(file, BOARD);
      expect(opens! - stops!).toBeGreaterThanOrEqual(6 - 1e-9);
      expect(shuts!).toBeGreaterThan(leaves! + 12);
      const at = shuts! - 12;
      expect(sampled(file, SKIP, `${at}:${at}`).get(at)!).toBeCloseTo(6.2, 6);
      for (const [a, b] of [
        [opens, open],
        [open, shuts],
        [shuts, shut],
      ])
        expect(b!).toBeGreaterThan(a!);
    };
    await chooseChannel(bench, SKIP);
    await tab(page, 'Time');
    await bench.goTo(30);
    await bench.type('Frames to move by', '19');
    await page.getByRole('button', { name: 'Push after' }).click();
    const pushed = await bench.save();
    expect(framesIn(pushed, SKIP)).toEqual([79, 151, 199, 249]);
    expect(framesIn(pushed, BOARD).slice(0, 2)).toEqual([157, 177]);
    gaps(pushed);
    await bench.type('Speed', '60');
    const stretched = await bench.save();
    expect(framesIn(stretched, SKIP)[1]!).toBeCloseTo(79 + 72 / 0.6, 9);
    gaps(stretched);
    await page.keyboard.press('Control+z');
    expect(readJson(await bench.save())).toEqual(readJson(pushed));
  });
  await test.step('a peg dragged before its time stays where it may be', async () => {
    await bench.drag(await peg(bench, BOARD, 157), await peg(bench, BOARD, 110));
    expect(framesIn(await bench.save(), BOARD).slice(0, 2)).toEqual([157, 177]);
    await expect(thread.first()).toContainText('met');
  });
  await test.step('a locked board can’t give way: the missing frames are told, and put right by one press', async () => {
    await chooseChannel(bench, BOARD);
    await page.keyboard.press('l');
    await bench.drag(await peg(bench, SKIP, 151), await peg(bench, SKIP, 161));
    await expect(thread.first()).toContainText(/−\d+ f/);
    await thread.first().click();
    await expect(card).toContainText(/comes \d+ frames too soon/);
    await card.getByRole('button', { name: /^Unlock it, come at f 16\d$/ }).click();
    const file = await bench.save();
    expect(framesIn(file, BOARD)[0]! - framesIn(file, SKIP)[1]!).toBeCloseTo(6, 9);
    expect(curveIn(file, BOARD)).not.toHaveProperty('locked', true);
  });
  await test.step('a ring is refused, naming its members; the timing sheet has both', async () => {
    await choose(bench, SKIP, framesIn(await bench.save(), SKIP)[1]!);
    await tab(page, 'Key');
    await press(page, 'After a key …');
    await bench.row(BOARD).locator('.name').click();
    await expect(page.getByText(/The interlocks run in a ring: .*board\/translate\.y/)).toBeVisible();
    await tab(page, 'Time');
    await press(page, 'Timing sheet');
    const rows = page
      .getByRole('region', { name: 'Timing sheet' })
      .locator('table')
      .first()
      .locator('tbody tr');
    await expect(rows).toHaveCount(2);
    await expect(rows.first()).toContainText('6 f after Skip, place X stops');
    await expect(rows.last()).toContainText('just 12 f after Skip, place X falls past 6.2 m');
    await expect(page.getByRole('img', { name: 'Moves of 2 channels over the cycle' })).toBeVisible();
  });
});
