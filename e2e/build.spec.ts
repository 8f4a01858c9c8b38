import { readFileSync } from 'node:fs';
import { kaizen, matrixOf, placeOf, sampled } from './cli';
import { quay } from './made-up';
import { dropped, press, tab } from './pages';
import { expect, test } from './test';

interface SavedPart {
  readonly id: string;
  readonly parent?: string;
  readonly geometry?: Record<string, unknown>;
  readonly squash?: Record<string, unknown>;
  readonly material?: { readonly baseColor: readonly number[] };
  readonly morphs?: readonly {
    readonly name: string;
    readonly moves: readonly { readonly radius: number }[];
  }[];
}

const savedIn = (file: string) =>
  JSON.parse(readFileSync(file, 'utf8')) as {
    readonly parts: readonly SavedPart[];
    readonly drivers?: readonly Record<string, unknown>[];
    readonly clips: readonly { readonly curves: readonly { readonly channel: string }[] }[];
  };

/** How many times its volume at rest a part has at a frame: the determinant of its matrix. */
function volumeAt(file: string, part: string, frame: number): number {
  const m = matrixOf(file, part, frame);
  const [a, b, c, d, e, f, g, h, i] = [0, 1, 2, 4, 5, 6, 8, 9, 10].map((place) => m[place]!) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
}

test('a shape by its numbers, copies in a row and in the mirror, a group', async ({ page }) => {
  const bench = await dropped(page, quay());
  await bench.row('rack').click();
  await tab(page, 'Part');
  const sheet = page.locator('kz-part-sheet');
  await test.step('a thing twice its size is one number', async () => {
    await bench.type('Extent Y', '1/2');
    await bench.type('All sizes', '2');
    const rack = savedIn(await bench.save()).parts.find(({ id }) => id === 'rack')!;
    expect(rack.geometry).toMatchObject({ shape: 'box', size: [0.8, 1, 0.8] });
  });
  await test.step('three copies stand 0.7 m apart, with their keys', async () => {
    await bench.type('How many', '3');
    await sheet.locator('kz-copies-form').getByRole('textbox', { name: 'Step X' }).fill('0');
    await page.keyboard.press('Enter');
    await sheet.locator('kz-copies-form').getByRole('textbox', { name: 'Step Z' }).fill('70 cm');
    await page.keyboard.press('Enter');
    await press(page, 'Make 3 copies');
    await expect(page.getByText('3 copies of Tine rack were made')).toBeVisible();
    const file = await bench.save();
    expect(placeOf(file, 'rack-4', 20)[2]! - placeOf(file, 'rack', 20)[2]!).toBeCloseTo(2.1, 9);
    expect([...sampled(file, 'rack-3/rotate.z', '0:60:15').values()]).toEqual([
      ...sampled(file, 'rack/rotate.z', '0:60:15').values(),
    ]);
    await page.keyboard.press('Control+z');
  });
  await test.step('grouped, nothing moves', async () => {
    const before = await bench.save();
    await bench.row('rack').click();
    await bench.row('block').click({ modifiers: ['Control'] });
    await page.keyboard.press('Control+g');
    const after = await bench.save();
    const parts = savedIn(after).parts;
    expect(parts.filter(({ parent }) => parent === 'group').map(({ id }) => id)).toEqual(['rack', 'block']);
    for (const id of ['rack', 'block'])
      placeOf(after, id, 0).forEach((n, i) => expect(n).toBeCloseTo(placeOf(before, id, 0)[i]!, 9));
  });
});

test('a squash laid over five frames, set down on a step, and a colour that is keyed', async ({ page }) => {
  const bench = await dropped(page, quay());
  await bench.row('block').click();
  await tab(page, 'Part');
  await bench.goTo(67);
  await bench.type('Squash on frame 67', '-0.3');
  // resting on the press shows them, and leaves the numbers as they were typed
  await page.getByRole('button', { name: 'Lay them', exact: true }).hover();
  await bench.settled();
  expect(await bench.field('Squash on frame 67')).toBe('−0.30');
  await press(page, 'Lay them');
  const file = await bench.save();
  const squash = sampled(file, 'block/squash', '64:70');
  expect([...squash.values()]).toEqual([0, 0, 0.14, -0.3, 0.11, 0, 0]);
  await test.step('its squash is dragged in the view on the line of equal volume; Esc gives it up', async () => {
    await page.keyboard.press('4');
    const grip = page.locator('[data-grip="squash"]');
    const box = (await grip.boundingBox())!;
    const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    await bench.drag(middle, { x: middle.x, y: middle.y - 12 }, false);
    await expect(page.locator('kz-view .chip-at')).toContainText('squash −0.300 →');
    await page.keyboard.press('Escape');
    await page.mouse.up();
    expect(await bench.value('block/squash')).toBe(-0.3);
    await bench.drag(middle, { x: middle.x, y: middle.y - 12 });
    expect(await bench.value('block/squash')).toBeGreaterThan(-0.28);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('1');
  });
  await test.step('lowered onto the carriage its lowest point touches it', async () => {
    await bench.type('Place Z', '0');
    await bench.type('Place X', String(placeOf(file, 'carriage', 67)[0]));
    await press(page, 'Set down on …');
    await bench.row('carriage').click();
    await expect(page.getByText(/Salt block stands on Rake carriage: it moved by/)).toBeVisible();
    await page.keyboard.press('Shift+d');
    const down = await bench.save();
    const half = 0.15;
    const carriage = placeOf(down, 'carriage', 67)[1]!;
    // The anchor is the block's lowest point, which stays while it is squashed; its own place is half a block above.
    expect(sampled(down, 'block/translate.y', '67:67').get(67)).toBeCloseTo(carriage + half + half, 6);
  });
  await test.step('its volume stays the same on every frame; rounded, it bulges between bounds beyond it', async () => {
    const squashed = await bench.save();
    for (const frame of [65, 66, 67, 68, 69]) expect(volumeAt(squashed, 'block', frame)).toBeCloseTo(1, 9);
    await press(page, 'Rounded');
    await bench.type('Bulges from', '-0.2');
    await bench.type('Bulges to', '0.6');
    const block = savedIn(await bench.save()).parts.find(({ id }) => id === 'block')!;
    expect(block.squash).toMatchObject({ round: { from: -0.2, to: 0.6 } });
    await press(page, 'Plain');
  });
  await test.step('its colour at one frame is keyed like any other channel', async () => {
    await page.getByLabel('Colour', { exact: true }).fill('#ff0000');
    await page.keyboard.press('Shift+d');
    const saved = savedIn(await bench.save());
    const channels = saved.clips[0]!.curves.map(({ channel }) => channel);
    expect(channels).toContain('block/material.baseColor.g');
  });
});

test('a target shape made where the mesh is picked; the focus of a camera on a thing and kept on it', async ({
  page,
}) => {
  const bench = await dropped(page, {
    ...quay(),
    parts: [
      {
        id: 'tarpaulin',
        name: 'Tarpaulin',
        kind: 'mesh',
        geometry: { shape: 'sphere', radius: 1 },
        rest: { translate: [0, 1, 0] },
      },
      { id: 'eye', name: 'Eye', kind: 'camera', rest: { translate: [0, 1, 9] } },
    ],
    clips: [{ id: 'main', name: 'Main', curves: [] }],
  });
  await bench.row('tarpaulin').click();
  await tab(page, 'Part');
  await press(page, 'New shape …');
  await expect(page.getByText('Pick the place on Tarpaulin that moves')).toBeVisible();
  const view = (await bench.view.boundingBox())!;
  await page.mouse.click(view.x + view.width / 2, view.y + view.height / 2);
  await expect(page.getByText('Shape shows wholly, as a loose edit')).toBeVisible();
  await bench.type('Soft radius', '0.6');
  await page.getByLabel('Name', { exact: true }).last().fill('Dent');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Shift+d');
  const file = await bench.save();
  const shape = savedIn(file).parts[0]!.morphs![0]!;
  expect(shape).toMatchObject({ name: 'Dent', moves: [{ radius: 0.6 }] });
  expect(sampled(file, 'tarpaulin/morph.Dent', '0:0').get(0)).toBe(1);
  await test.step('focus', async () => {
    await bench.row('eye').click();
    await press(page, 'Focus on …');
    await bench.row('tarpaulin').click();
    await expect(page.getByText('Focused at 9.000 m')).toBeVisible();
    await page.keyboard.press('Shift+d');
    expect(sampled(await bench.save(), 'eye/camera.focusDistance', '0:0').get(0)).toBe(9);
    await bench.row('eye').click();
    await press(page, 'Keep on a part …');
    await bench.row('tarpaulin').click();
    await expect(page.getByText('focus kept on Tarpaulin')).toBeVisible();
    const kept = savedIn(await bench.save());
    expect(kept.drivers).toMatchObject([{ kind: 'distance', of: 'eye', to: 'tarpaulin' }]);
    await press(page, 'Let go');
    expect(savedIn(await bench.save()).drivers ?? []).toEqual([]);
  });
});

test('three shapes of one tarpaulin each count from the base: alone, and all together', async ({ page }) => {
  const bench = await dropped(page, {
    ...quay(),
    parts: [
      {
        id: 'tarpaulin',
        name: 'Tarpaulin',
        kind: 'mesh',
        geometry: { shape: 'sphere', radius: 1 },
        rest: { translate: [0, 1, 0] },
      },
    ],
    clips: [{ id: 'main', name: 'Main', curves: [] }],
  });
  await bench.row('tarpaulin').click();
  await tab(page, 'Part');
  const view = (await bench.view.boundingBox())!;
  const names = ['Shape', 'Shape 2', 'Shape 3'];
  for (const [i, name] of names.entries()) {
    await press(page, 'New shape …');
    await page.mouse.click(view.x + view.width / 2 + (i - 1) * 25, view.y + view.height / 2 + i * 12);
    await expect(page.getByText(`${name} shows wholly, as a loose edit`)).toBeVisible();
  }
  const at = async (values: readonly number[]): Promise<string> => {
    for (const [i, name] of names.entries()) await bench.type(`${name}, by number`, String(values[i]!));
    await page.keyboard.press('Shift+d');
    return bench.save();
  };
  const base = await at([0, 0, 0]);
  const { moves } = savedIn(base).parts[0]!.morphs![0] as unknown as {
    moves: readonly { at: readonly number[] }[];
  };
  const point = `tarpaulin:${moves[0]!.at.join()}`;
  const placeIn = (file: string): readonly number[] => {
    const { out, err, code } = kaizen('sample', file, '--points', point, '--frames', '0:0');
    if (code !== 0) throw new Error(err);
    return out.trim().split('\n')[1]!.split(',').slice(1).map(Number);
  };
  const still = placeIn(base);
  const alone = [];
  for (const values of [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ])
    alone.push(placeIn(await at(values)));
  const all = placeIn(await at([1, 1, 1]));
  for (let n = 0; n < 3; n++) {
    const sum = alone.reduce((total, place) => total + place[n]! - still[n]!, 0);
    expect(all[n]! - still[n]!).toBeCloseTo(sum, 9);
  }
  expect(Math.hypot(...alone[0]!.map((n, i) => n - still[i]!))).toBeGreaterThan(0.05);
});
