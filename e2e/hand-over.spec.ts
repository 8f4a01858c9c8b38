import { readFileSync, writeFileSync } from 'node:fs';
import { deflateSync } from 'node:zlib';
import { validateBytes } from 'gltf-validator';
import { kaizen } from './cli';
import { foreignGlb, glb } from './foreign-model';
import { Bench, drop, pathOf, readJson } from './pages';
import { expect, test } from './test';

/** Two tables alike: the words exactly, the numbers but for what two engines round differently in their last bits. */
function expectSameNumbers(one: string, other: string): void {
  const cells = (text: string) => text.split('\n').map((line) => line.split(','));
  const [ours, theirs] = [cells(one), cells(other)];
  expect(ours.map((line) => line.length)).toEqual(theirs.map((line) => line.length));
  expect(ours[0]).toEqual(theirs[0]);
  const worst = ours
    .slice(1)
    .flatMap((line, i) =>
      line.map(
        (cell, k) => Math.abs(Number(cell) - Number(theirs[i + 1]![k])) / Math.max(1, Math.abs(Number(cell))),
      ),
    );
  expect(Math.max(...worst)).toBeLessThan(1e-12);
}

test('every card writes its file: glTF as text, CSV as the command line has it, the project', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Skip');
  const saved = await bench.save();
  await bench.row('skip').click();
  await bench.type('Place Y', '0.5');
  await page.getByRole('link', { name: 'Hand over' }).click();
  await expect(page.getByText('1 loose edit is not keyed and will not be in the files.')).toBeVisible();

  const written = async (button: string) => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: button, exact: true }).click();
    return pathOf(await download);
  };
  const gltf = await written('Write .gltf');
  const report = await validateBytes(new Uint8Array(readFileSync(gltf)));
  expect(report.issues.messages.filter((issue) => issue.severity < 2)).toEqual([]);
  await expect(page.getByRole('status').filter({ hasText: 'skip.gltf written' })).toBeVisible();

  const csv = readFileSync(await written('Write .csv'), 'utf8');
  expectSameNumbers(csv, kaizen('sample', saved).out);
  await page.getByRole('button', { name: 'Speed, acceleration, jerk' }).click();
  expectSameNumbers(
    readFileSync(await written('Write .csv'), 'utf8'),
    kaizen('sample', saved, '--rates').out,
  );

  expect(readJson(await written('Write'))).toEqual(readJson(saved));
  await page.getByRole('button', { name: 'with its assets' }).click();
  const zip = await written('Write');
  expect(kaizen('validate', zip)).toMatchObject({ out: '', code: 0 });
});

test('a GLB that Kaizen wrote comes back as the very project', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Brine wheel');
  const saved = readJson(await bench.save());
  await page.getByRole('link', { name: 'Hand over' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write .glb' }).click();
  const file = await pathOf(await download);
  const back = file.replace(/\.glb$/, '.kaizen.json');
  expect(kaizen('convert', file, back).code).toBe(0);
  expect(readJson(back)).toEqual(saved);
});

/** A PNG of one colour, by RFC 2083. */
function png(red: number, green: number, blue: number): Uint8Array {
  const crcTable = Array.from({ length: 256 }, (_, n) => {
    let c = n;
    for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
    return c >>> 0;
  });
  const chunk = (name: string, body: Buffer) => {
    const named = Buffer.concat([Buffer.from(name), body]);
    let crc = 0xffffffff;
    for (const byte of named) crc = crcTable[(crc ^ byte) & 255]! ^ (crc >>> 8);
    const out = Buffer.alloc(8 + named.length);
    out.writeUInt32BE(body.length, 0);
    named.copy(out, 4);
    out.writeUInt32BE((crc ^ 0xffffffff) >>> 0, 4 + named.length);
    return out;
  };
  const header = Buffer.from([0, 0, 0, 2, 0, 0, 0, 2, 8, 2, 0, 0, 0]);
  const row = [0, red, green, blue, red, green, blue];
  const signature = Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]);
  return Buffer.concat([
    signature,
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.from([...row, ...row]))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

test('a glTF with its files beside it: names, places and the picture on it', async ({ page }, info) => {
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
  const whole = foreignGlb();
  const view = new DataView(whole.buffer);
  const length = view.getUint32(12, true);
  const json = JSON.parse(new TextDecoder().decode(whole.slice(20, 20 + length))) as Record<string, unknown>;
  const bin = whole.slice(28 + length);
  const uvs = Float32Array.from([0, 0, 1, 0, 1, 1, 0, 1]);
  const bytes = new Uint8Array(76 + 32);
  bytes.set(bin.slice(0, 60));
  bytes.set(new Uint8Array(uvs.buffer), 64);
  Object.assign(json, {
    images: [{ uri: 'paint.png' }],
    textures: [{ source: 0 }],
    materials: [{ pbrMetallicRoughness: { baseColorTexture: { index: 0 } } }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0, TEXCOORD_0: 2 }, indices: 1, material: 0 }] }],
    buffers: [{ byteLength: bytes.length, uri: 'vane.bin' }],
  });
  (json['bufferViews'] as unknown[]).push({ buffer: 0, byteOffset: 64, byteLength: 32 });
  (json['accessors'] as unknown[]).push({ bufferView: 2, componentType: 5126, count: 4, type: 'VEC2' });
  await page.goto('/');
  await drop(page, [
    { name: 'vane.gltf', bytes: new TextEncoder().encode(JSON.stringify(json)) },
    { name: 'vane.bin', bytes },
    { name: 'paint.png', bytes: png(220, 20, 20) },
  ]);
  const bench = new Bench(page);
  await bench.ready();
  await expect(bench.row('Mast')).toBeVisible();
  await bench.row('Vane').click();
  await expect.poll(() => bench.field('Rest Place Y')).toBe('1.00');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+3');
  const reddest = () =>
    page.evaluate(() => {
      const source = document.querySelector<HTMLCanvasElement>('kz-view canvas')!;
      const copy = document.createElement('canvas');
      copy.width = source.width;
      copy.height = source.height;
      const pen = copy.getContext('2d')!;
      pen.drawImage(source, 0, 0);
      const { data } = pen.getImageData(0, 0, copy.width, copy.height);
      let found = 0;
      for (let i = 0; i < data.length; i += 4) found = Math.max(found, data[i]! - data[i + 1]!);
      return found;
    });
  await expect.poll(reddest).toBeGreaterThan(120);
  expect(errors).toEqual([]);
  const saved = readFileSync(await bench.save());
  writeFileSync(info.outputPath('vane.kaizen.json'), saved);
  expect(kaizen('validate', info.outputPath('vane.kaizen.json'))).toMatchObject({ out: '', code: 0 });
  await bench.kept();
  await page.reload();
  await bench.ready();
  await page.keyboard.press('Shift+3');
  await expect.poll(reddest).toBeGreaterThan(120);
  expect(readFileSync(await bench.save())).toEqual(saved);
});

test('a model whose mesh is missing is refused in one sentence', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  const before = readJson(await bench.save());
  const lacking = JSON.stringify({
    asset: { version: '2.0' },
    nodes: [{ mesh: 3 }],
    scenes: [{ nodes: [0] }],
  });
  await drop(page, [{ name: 'lacking.glb', bytes: glb(lacking, new Uint8Array(0)) }]);
  await expect(page.getByRole('status').filter({ hasText: 'Nothing was changed' })).toHaveText(
    /lacking\.glb: at \/nodes\/0\/mesh/,
  );
  expect(readJson(await bench.save())).toEqual(before);
});

test('panels keep the sizes they were given by hand, and the theme stays', async ({ page }) => {
  const bench = await Bench.openSample(page, 'Skip');
  const sheet = page.locator('kz-side-sheet');
  const gutters = page.locator('.as-split-gutter');
  const width = (await sheet.boundingBox())!.width;
  const last = (await gutters.last().boundingBox())!;
  await bench.drag({ x: last.x + 2, y: last.y + 300 }, { x: last.x - 78, y: last.y + 300 });
  await expect.poll(async () => (await sheet.boundingBox())!.width).toBeGreaterThan(width + 60);
  const wider = (await sheet.boundingBox())!.width;
  await page.getByRole('button', { name: 'Day or night' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await page.reload();
  await bench.ready();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await expect.poll(async () => Math.abs((await sheet.boundingBox())!.width - wider)).toBeLessThan(2);
});
