import { sampled } from './cli';
import { Bench, drop, readJson } from './pages';
import { expect, test } from './test';

const RUN = 'skip/translate.x';

/** A second of a tone as a WAV file: 8,000 samples of 16 bits. */
function toneWav(): Uint8Array {
  const samples = 8000;
  const bytes = new DataView(new ArrayBuffer(44 + samples * 2));
  const text = (at: number, word: string) =>
    [...word].forEach((letter, i) => bytes.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  bytes.setUint32(4, 36 + samples * 2, true);
  text(8, 'WAVEfmt ');
  bytes.setUint32(16, 16, true);
  bytes.setUint16(20, 1, true);
  bytes.setUint16(22, 1, true);
  bytes.setUint32(24, 8000, true);
  bytes.setUint32(28, 16000, true);
  bytes.setUint16(32, 2, true);
  bytes.setUint16(34, 16, true);
  text(36, 'data');
  bytes.setUint32(40, samples * 2, true);
  for (let i = 0; i < samples; i++)
    bytes.setInt16(44 + i * 2, Math.sin((i / 8000) * 2 * Math.PI * 220) * 20000, true);
  return new Uint8Array(bytes.buffer);
}

test('markers and sound on the ruler: named, dragged, snapped to, moved by edits of time, in the file', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Skip');
  await page.getByRole('button', { name: 'Ticks' }).click();
  const onRuler = async (frame: number, y: number) => {
    const box = (await bench.canvas.boundingBox())!;
    const { first, last } = await bench.scales();
    return { x: box.x + ((frame - first) / (last - first)) * box.width, y: box.y + y };
  };
  const marker = async () => (readJson(await bench.save())['markers'] as object[])[0];

  await test.step('a marker at the playhead, named, made a span, dragged', async () => {
    await bench.goTo(60);
    await page.keyboard.press('n');
    const name = page.getByRole('textbox', { name: /^Name of the marker/ });
    await name.fill('skip full');
    await name.press('Enter');
    await page.getByLabel('Kind of the marker skip full').selectOption({ label: 'hold' });
    await page.getByRole('button', { name: 'Span' }).click();
    expect(await marker()).toMatchObject({ name: 'skip full', kind: 'hold', frame: 60, end: 84 });
    const from = await onRuler(70, 35);
    await bench.drag(from, { ...(await onRuler(80, 35)) });
    expect(await marker()).toMatchObject({ frame: 70, end: 94 });
    await bench.goTo(0);
    await page.keyboard.press('.');
    await expect.poll(() => bench.field('Frame of the playhead')).toBe('70');
  });

  await test.step('keys snap to it, and not while Ctrl is held', async () => {
    await page.getByRole('button', { name: 'Markers', exact: true }).click();
    await page.getByRole('button', { name: 'Whole frames', exact: true }).click();
    const row = (await bench.row(RUN).boundingBox())!;
    const y = row.y + row.height / 2;
    const peg = await onRuler(144, 0);
    const near = await onRuler(95.4, 0);
    await bench.drag({ x: peg.x, y }, { x: near.x, y });
    await expect.poll(() => bench.field('Frame')).toBe('94');
    await page.keyboard.press('Control+z');
    await page.mouse.move(peg.x, y);
    await page.mouse.down();
    await page.mouse.move(near.x - 30, y);
    await page.keyboard.down('Control');
    await page.mouse.move(near.x, y);
    await page.mouse.up();
    await page.keyboard.up('Control');
    expect(Number(await bench.field('Frame'))).not.toBe(94);
    await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: 'Whole frames', exact: true }).click();
  });

  await test.step('a gap takes it along', async () => {
    await page.getByRole('tab', { name: 'Time' }).click();
    await page.getByRole('button', { name: 'All channels' }).click();
    await bench.goTo(50);
    await page.keyboard.press('j');
    await page.keyboard.press('j');
    expect(await marker()).toMatchObject({ frame: 94, end: 118 });
    await page.keyboard.press('Control+z');
    expect(await marker()).toMatchObject({ frame: 70, end: 94 });
  });

  await test.step('a sound dropped on the page is drawn, moved and kept; a broken one is told', async () => {
    await bench.goTo(24);
    await drop(page, [{ name: 'winch.wav', bytes: toneWav() }]);
    await expect(page.getByText('winch.wav plays from f 24')).toBeVisible();
    await bench.type('Begin of the sound winch.wav', '48');
    const saved = readJson(await bench.save());
    expect(saved['sounds']).toMatchObject([{ start: 48 }]);
    expect(saved['assets']).toMatchObject([{ name: 'winch.wav', type: 'audio/wav' }]);
    const strip = await onRuler(60, 24 + 22 + 17);
    const color = await page.evaluate(
      ({ x, y }) => {
        const canvas = document.querySelector<HTMLCanvasElement>('kz-chart canvas')!;
        const box = canvas.getBoundingClientRect();
        const pixel = canvas.getContext('2d')!.getImageData(x - box.left, y - box.top, 1, 1).data;
        return [...pixel].join(' ');
      },
      { x: Math.round(strip.x), y: Math.round(strip.y) },
    );
    expect(color).toBe('31 107 58 255');
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
    await page.keyboard.press('Space');
    await drop(page, [{ name: 'torn.mp3', bytes: new Uint8Array([1, 2, 3]) }]);
    await expect(page.getByText(/torn\.mp3: this browser can’t decode it as sound/)).toBeVisible();
    expect(readJson(await bench.save())['sounds']).toHaveLength(1);
  });
});

test('keys on the motion trail are dragged and typed in the view, and added there', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  await bench.row('skip').click();
  await bench.goTo(0);
  const before = await bench.save();
  const value = async (frame: number) => sampled(await bench.save(), RUN, `${frame}:${frame}`).get(frame)!;
  const top = await value(144);
  /** Where the part's pivot is in the view at a frame: its grips tell, and are away again afterwards. */
  const pivotAt = async (frame: number) => {
    const grip = page.locator('kz-grips [data-grip="all"]');
    await bench.goTo(frame);
    await page.keyboard.press('2');
    await expect(grip).toBeVisible();
    await bench.settled();
    const box = (await grip.boundingBox())!;
    await page.keyboard.press('1');
    await expect(grip).toHaveCount(0);
    return { x: box.x + 6, y: box.y + 6 };
  };
  const bead = await pivotAt(144);
  await bench.goTo(0);
  await bench.drag(bead, { x: bead.x - 60, y: bead.y + 24 });
  const dragged = await value(144);
  expect(dragged).toBeLessThan(top - 0.2);
  await expect.poll(() => bench.field('Frame')).toBe('144');
  await bench.type('Value', '5');
  expect(await value(144)).toBe(5);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect(readJson(await bench.save())).toEqual(readJson(before));

  const half = await pivotAt(72);
  await page.mouse.dblclick(half.x, half.y);
  const keys = (
    readJson(await bench.save())['clips'] as { curves: { channel: string; keys: object[] }[] }[]
  )[0]!.curves.find(({ channel }) => channel === RUN)!.keys;
  expect(keys.length).toBeGreaterThan(4);
  expect(await value(40)).toBeCloseTo(sampled(before, RUN, '40:40').get(40)!, 2);
});

test('several parts are posed at once, about a point, along the view, and nudged', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  await bench.row('wheel').click();
  await bench.row('pump').click({ modifiers: ['Control'] });
  const sheet = page.locator('kz-part-sheet');
  await expect(sheet.getByRole('heading', { name: '2 parts' })).toBeVisible();
  await expect(sheet.getByRole('textbox', { name: 'Place Y', exact: true })).toHaveAttribute(
    'placeholder',
    'mixed',
  );
  await page.keyboard.press('2');
  await page.keyboard.press('Alt+ArrowUp');
  const tray = page.getByRole('region', { name: 'Loose edits' });
  await expect(tray).toContainText('2 loose edits');
  await bench.type('Size Y', 'times 2');
  await expect(tray).toContainText('4 loose edits');
  expect(await bench.field('Size Y')).toBe('2.00');
  const placeY = async (part: string) => {
    await bench.row(part).click();
    return Number((await bench.field('Place Y')).replace('−', '-'));
  };
  const raised = { wheel: await placeY('wheel'), pump: await placeY('pump') };
  await bench.row('wheel').click({ modifiers: ['Control'] });
  await bench.type('Place Y', 'by -0.1');
  const back = { wheel: await placeY('wheel'), pump: await placeY('pump') };
  expect(back.wheel).toBeCloseTo(raised.wheel - 0.1, 6);
  expect(back.pump).toBeCloseTo(raised.pump - 0.1, 6);
  await bench.row('pump').click();
  await page.keyboard.press('3');
  await page.keyboard.press('q');
  await expect(page.locator('kz-grips [data-grip="point"]')).toBeVisible();
  await bench.type('Turning point X', '0');
  await page.getByRole('button', { name: 'World' }).click();
  const number = async (name: string) => Number((await bench.field(name)).replace('−', '-'));
  const x = await number('Place X');
  const z = await number('Place Z');
  await bench.view.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('“by” goes along the world’s axes about the point')).toBeVisible();
  await page.keyboard.press('Tab');
  await page.keyboard.type('by 180');
  await page.keyboard.press('Enter');
  await expect.poll(() => number('Place X')).toBeCloseTo(-x, 2);
  expect(await number('Place Z')).toBeCloseTo(z, 2);
  await page.getByRole('button', { name: 'View', exact: true }).click();
  await bench.view.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('“by” goes along the view’s axes about the point')).toBeVisible();
  await page.keyboard.press('Escape');
  await bench.row('wheel').click({ modifiers: ['Control'] });
  await sheet.getByRole('group', { name: 'Turn order' }).getByRole('button', { name: 'ZYX' }).click();
  const parts = readJson(await bench.save())['parts'] as readonly { id: string; turnOrder?: string }[];
  for (const id of ['wheel', 'pump']) expect(parts.find((part) => part.id === id)?.turnOrder).toBe('ZYX');
});
