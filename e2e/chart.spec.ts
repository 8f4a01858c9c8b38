import { Bench, curveIn, readJson } from './pages';
import { sampled } from './cli';
import { expect, test } from './test';

const RUN = 'skip/translate.x';
const TIP = 'bucket/rotate.z';

function keysIn(
  file: string,
  channel: string,
): readonly { readonly frame: number; readonly value: number; readonly leg?: { kind: string } }[] {
  const clips = readJson(file)['clips'] as {
    curves: { channel: string; keys: { frame: number; value: number }[] }[];
  }[];
  return clips[0]!.curves.find((curve) => curve.channel === channel)?.keys ?? [];
}
const frames = (file: string, channel: string) => keysIn(file, channel).map((key) => key.frame);

test('keys by hand in Curves: copy, one axis, box, Ctrl, insert, paste, delete', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  await bench.row(RUN).getByText('place').click();
  await bench.settled();

  await test.step('Alt leaves a copy behind', async () => {
    await page.keyboard.down('Alt');
    await bench.drag(await bench.place(180, 6.4, 'm'), await bench.place(200, 6.4, 'm'));
    await page.keyboard.up('Alt');
    expect(frames(await bench.save(), RUN)).toEqual([0, 144, 180, 200, 276]);
    await page.keyboard.press('Control+z');
  });

  await test.step('Shift keeps the axis that went further', async () => {
    const to = await bench.place(190, 6.2, 'm');
    await page.keyboard.down('Shift');
    await bench.drag(await bench.place(180, 6.4, 'm'), to);
    await page.keyboard.up('Shift');
    expect(keysIn(await bench.save(), RUN)[2]).toMatchObject({ frame: 190, value: 6.4 });
    await page.keyboard.press('Control+z');
  });

  await test.step('a box chooses, Ctrl takes one out, all chosen move together', async () => {
    await bench.drag(await bench.place(130, 7.2, 'm'), await bench.place(190, 5.5, 'm'));
    await expect(page.getByRole('tab', { name: /Key/ })).toContainText('2');
    await page.keyboard.down('Control');
    const key = await bench.place(144, 6.4, 'm');
    await page.mouse.click(key.x, key.y);
    await page.keyboard.up('Control');
    await expect(page.getByRole('tab', { name: /Key/ })).toContainText('1');
    await page.keyboard.press('Control+ArrowRight');
    expect(frames(await bench.save(), RUN)).toEqual([0, 144, 181, 276]);
    await page.keyboard.press('Control+z');
  });

  await test.step('a double-click on a law says what it will do, and does it on a press, the motion as it was', async () => {
    const before = await bench.save();
    const was = sampled(before, RUN, '0:144:6');
    const at = await bench.place(72, was.get(72)!, 'm');
    await page.mouse.dblclick(at.x, at.y);
    await expect(page.getByRole('status').filter({ hasText: 'within 0.1 % of its rise' })).toBeVisible();
    expect(frames(await bench.save(), RUN)).toEqual([0, 144, 180, 276]);
    await page.getByRole('button', { name: 'Add the key' }).click();
    const after = await bench.save();
    expect(frames(after, RUN)).toContain(72);
    const now = sampled(after, RUN, '0:144:6');
    for (const [frame, value] of was) expect(Math.abs(now.get(frame)! - value)).toBeLessThanOrEqual(6.4e-3);
    await page.keyboard.press('Control+z');
  });

  await test.step('copied keys are pasted at the playhead, onto another channel too; Delete takes them', async () => {
    const key = await bench.place(144, 6.4, 'm');
    await page.mouse.click(key.x, key.y);
    await page.keyboard.press('Control+c');
    await bench.goTo(300);
    await page.keyboard.press('Control+v');
    expect(keysIn(await bench.save(), RUN).at(-1)).toMatchObject({
      frame: 300,
      value: 6.4,
      leg: { kind: 'hold' },
    });
    await page.keyboard.press('Delete');
    expect(frames(await bench.save(), RUN)).toEqual([0, 144, 180, 276]);
  });
});

test('Ticks: pegs drag in time, a part’s peg moves all it stands for; leaning pegs come back to whole frames', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Skip');
  await page.getByRole('button', { name: 'Ticks' }).click();
  await page.getByRole('button', { name: /^Has keys/ }).click();
  await bench.settled();
  const canvas = (await bench.canvas.boundingBox())!;
  const { first, last } = await bench.scales();
  const x = (frame: number) => canvas.x + ((frame - first) / (last - first)) * canvas.width;
  const rowAt = async (id: string) => {
    const box = (await bench.row(id).boundingBox())!;
    return box.y + box.height / 2;
  };
  await bench.drag({ x: x(144), y: await rowAt(RUN) }, { x: x(150), y: await rowAt(RUN) });
  expect(frames(await bench.save(), RUN)).toEqual([0, 150, 180, 276]);
  await bench.drag({ x: x(154), y: await rowAt('bucket') }, { x: x(158), y: await rowAt('bucket') });
  expect(frames(await bench.save(), TIP)).toContain(158);
  await bench.type('Frame', '158.4');
  expect(frames(await bench.save(), TIP)).toContain(158.4);
  await page.getByRole('button', { name: 'To whole frames' }).click();
  expect(frames(await bench.save(), TIP)).toContain(158);
});

test('mute, lock and only this; rows by search; fitting and zooming', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  await bench.row(RUN).getByText('place').click();
  await bench.goTo(144);
  await expect.poll(() => bench.value(RUN)).toBe(6.4);
  await page.getByRole('button', { name: 'Mute Skip, place X' }).click();
  await expect.poll(() => bench.value(RUN)).toBe(0);
  await page.keyboard.press('m');
  await expect.poll(() => bench.value(RUN)).toBe(6.4);

  await page.keyboard.press('l');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await expect(page.getByRole('status').filter({ hasText: 'locked' })).toBeVisible();
  expect(frames(await bench.save(), RUN)).toEqual([0, 144, 180, 276]);

  await bench.calm();
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await bench.scales()).strips.map((strip) => strip.unit)).toEqual(['m', '°']);
  await bench.row(TIP).getByText('turn').click();
  await page.keyboard.press('o');
  await expect.poll(async () => (await bench.scales()).strips.map((strip) => strip.unit)).toEqual(['°']);
  await page.keyboard.press('o');

  await page.getByRole('searchbox', { name: 'Filter rows' }).fill('drum');
  await expect(bench.row('drum')).toBeVisible();
  await expect(bench.row(RUN)).toBeHidden();
  await page.getByRole('searchbox', { name: 'Filter rows' }).press('Escape');

  const whole = await bench.scales();
  const middle = await bench.place((whole.first + whole.last) / 2, 0, '°');
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.wheel(0, -400);
  await bench.settled();
  const closer = await bench.scales();
  expect(closer.last - closer.first).toBeLessThan(0.7 * (whole.last - whole.first));
  expect((closer.first + closer.last) / 2).toBeCloseTo((whole.first + whole.last) / 2, 0);
  await page.keyboard.press('Escape');
  await page.keyboard.press('9');
  await bench.settled();
  expect((await bench.scales()).last).toBeCloseTo(276 * 1.06, 6);
});

test('Capture keys what is posed, and tells what waits and why', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  const told = (text: string) => page.getByRole('status').filter({ hasText: text });
  await bench.goTo(100);
  await bench.row('skip').click();
  await page.keyboard.press('c');
  await bench.type('Place X', '3');
  await expect(told('place X keyed at f 100')).toBeVisible();
  expect(frames(await bench.save(), RUN)).toEqual([0, 100, 144, 180, 276]);
  await bench.type('Place Y', '0.5');
  await expect(told('place Y waits: it has no keys yet')).toBeVisible();
  await page.getByRole('button', { name: 'May start new channels' }).click();
  await bench.type('Place Z', '0.5');
  await expect(told('place Z keyed at f 100')).toBeVisible();
  await page.getByRole('button', { name: /^Scope/ }).click();
  await page.getByRole('menuitemcheckbox', { name: 'turn' }).click();
  await page.keyboard.press('Escape');
  await bench.type('Turn Z', '5');
  await expect(told('turn Z waits: outside the Scope')).toBeVisible();
  await bench.goTo(120);
  await expect.poll(() => bench.value('skip/rotate.z')).toBe(5);
  await page.getByRole('region', { name: 'Loose edits' }).getByRole('button', { name: 'Discard' }).click();
  await expect(page.getByRole('region', { name: 'Loose edits' })).toBeHidden();
  await expect(bench.row('skip/rotate.z')).toBeHidden();
});

test('Ticks in full: a range by Shift, a run scaled by its end, a peg by double click, pegs of a kind and of all below', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Skip');
  await page.getByRole('button', { name: 'Ticks' }).click();
  const at = async (row: string, frame: number, aside = 0) => {
    const box = (await bench.row(row).boundingBox())!;
    const canvas = (await bench.canvas.boundingBox())!;
    const { first, last } = await bench.scales();
    return {
      x: canvas.x + ((frame - first) / (last - first)) * canvas.width + aside,
      y: box.y + box.height / 2,
    };
  };
  const click = async (place: { x: number; y: number }) => page.mouse.click(place.x, place.y);

  await test.step('Shift+click takes all keys up to the clicked one; the arrow outside their end scales them', async () => {
    await click(await at(RUN, 144));
    await page.keyboard.down('Shift');
    await click(await at(RUN, 276));
    await page.keyboard.up('Shift');
    await expect(page.getByRole('tab', { name: 'Key' })).toContainText('3');
    await bench.drag(await at(RUN, 276, 13), await at(RUN, 210, 13));
    const file = await bench.save();
    expect(frames(file, RUN)).toEqual([0, 144, 162, 210]);
    await page.keyboard.press('Control+z');
    expect(frames(await bench.save(), RUN)).toEqual([0, 144, 180, 276]);
  });

  await test.step('a double click adds a peg, the curve as it was', async () => {
    const before = await bench.save();
    await page.keyboard.press('Escape');
    const place = await at(RUN, 160);
    await page.mouse.dblclick(place.x, place.y);
    const file = await bench.save();
    expect(frames(file, RUN)).toEqual([0, 144, 160, 180, 276]);
    expect(sampled(file, RUN, '170:170').get(170)).toBe(sampled(before, RUN, '170:170').get(170));
    await page.keyboard.press('Control+z');
  });

  await test.step('the peg of a kind moves all its channels, that of a group all below it when asked', async () => {
    await bench.row('skip').click();
    await bench.goTo(60);
    await bench.type('Place Y', '0.2');
    await page.keyboard.press('Shift+d');
    await expect(bench.row('skip#place')).toBeVisible();
    await bench.drag(await at('skip#place', 60), await at('skip#place', 70));
    expect(frames(await bench.save(), 'skip/translate.y')).toEqual([70]);
    const incline = await at('incline', 276);
    await click(incline);
    await expect(page.getByRole('tab', { name: 'Key' })).not.toContainText(/\d/);
    await page.getByRole('button', { name: 'Rows', exact: true }).click();
    await page.getByRole('menuitemcheckbox', { name: 'pegs of parts stand for all below' }).click();
    await page.keyboard.press('Escape');
    await expect(page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
    await bench.drag(await at('incline', 276), await at('incline', 280));
    expect(frames(await bench.save(), RUN).at(-1)).toBe(280);
  });

  await test.step('rows by kind', async () => {
    await page.getByRole('button', { name: 'Rows', exact: true }).click();
    await page.getByRole('menuitemcheckbox', { name: 'place', exact: true }).click();
    await page.keyboard.press('Escape');
    await expect(bench.row(RUN)).toBeHidden();
    await bench.reveal(TIP);
    await expect(bench.row(TIP)).toBeVisible();
  });
});

test('the Chart in two halves over one time: Ticks below, keys moved there, rows kept under a name', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Quay');
  await bench.row('carriage').click();
  await page.keyboard.press('x');
  const below = page.locator('kz-chart canvas[data-axis]').last();
  await expect(below).toHaveAccessibleName(/^Lower half of the Chart/);
  const lower = page.locator('.half.lower');
  const row = lower.locator('[data-row="carriage/translate.x"]');
  await lower.locator('cdk-virtual-scroll-viewport').evaluate((element) => element.scrollTo(0, 500));
  await bench.settled();
  await row.scrollIntoViewIfNeeded();
  const [at, box] = await Promise.all([row.boundingBox(), below.boundingBox()]);
  const [first = 0, last = 1] = (await below.getAttribute('data-axis'))!.split(' ').map(Number);
  const place = (frame: number) => ({
    x: box!.x + ((frame - first) / (last - first)) * box!.width,
    y: at!.y + at!.height / 2,
  });
  await bench.drag(place(60), place(66));
  const frames = async () =>
    curveIn(await bench.save(), 'carriage/translate.x').keys.map(({ frame }) => frame);
  expect(await frames()).toEqual([0, 30, 66, 96, 120]);
  const upper = page.locator('kz-chart canvas[data-axis]').first();
  await page.mouse.move(box!.x + 200, box!.y + 60);
  await page.keyboard.press('Control+2');
  await expect(
    page.getByRole('group', { name: 'Density of the lower half' }).getByText('Curves'),
  ).toHaveAttribute('aria-pressed', 'true');
  await page.mouse.wheel(0, -300);
  await bench.settled();
  expect(await upper.getAttribute('data-axis')).toBe(await below.getAttribute('data-axis'));

  await page.getByRole('button', { name: 'Rows', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Sets of rows…' }).click();
  await page.getByRole('textbox', { name: 'Name of a set of rows' }).fill('Pan work');
  await page.keyboard.press('Enter');
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Pan work', exact: true })).toBeVisible();
  await expect(page.locator('.half.lower .row')).toHaveCount(2);
  await bench.kept();
  await page.reload();
  await bench.ready();
  await expect(page.getByRole('button', { name: 'Pan work', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'One Chart' }).click();
  await expect(lower).toHaveCount(0);
});
