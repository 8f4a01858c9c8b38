import { packed } from '../core/testing/packed-model';
import { readFileSync, writeFileSync } from 'node:fs';
import { validateBytes } from 'gltf-validator';
import { playGlb } from '../core/testing/gltf';
import { kaizen, sampled } from './cli';
import { foreignGlb } from './foreign-model';
import { expect, test } from './test';
import { Bench, drop, pathOf, readJson } from './pages';

const TURN = 'wheel/rotate.y';

interface SavedKey {
  readonly frame: number;
  readonly value: number;
  readonly in?: { readonly mode: string; readonly slope?: number; readonly reach?: number };
  readonly out?: { readonly mode: string; readonly slope?: number; readonly reach?: number };
  readonly joined?: boolean;
}
interface SavedCurve {
  readonly channel: string;
  readonly keys: readonly SavedKey[];
  readonly after?: { readonly mode: string; readonly count?: number; readonly pin?: number };
}

function curveIn(file: string, channel: string): SavedCurve {
  const clips = readJson(file)['clips'] as { curves: SavedCurve[] }[];
  const curve = clips[0]!.curves.find((candidate) => candidate.channel === channel);
  if (!curve) throw new Error(`no curve of ${channel}`);
  return curve;
}

test('from an opened sample to a keyed, looping, playing, kept and exported machine', async ({ page }) => {
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  await page.goto('/');
  await expect(page.getByRole('button', { name: /^Open the sample/ })).toHaveCount(10);
  await expect(page.getByRole('button', { name: 'New, empty' })).toBeVisible();
  const bench = await Bench.openSample(page, 'Brine wheel');
  await test.step('a new beginning: all keys of the wheel are deleted', async () => {
    await bench.row(TURN).getByText('turn').click();
    await page.keyboard.press('Control+a');
    await expect(page.getByLabel('Pin after').locator('option:checked')).toHaveText(/48/);
    await page.keyboard.press('Delete');
    await expect(bench.row(TURN)).toContainText('0.0');
  });

  await test.step('picked in the view, turned by its grip at frame 0: a loose edit, keyed by D', async () => {
    await bench.row('wheel').click();
    await page.keyboard.press('3');
    const ring = page.locator('kz-grips [data-grip="Y"] .solid');
    await expect(ring).toBeVisible();
    await bench.settled();
    const at = (await ring.boundingBox())!;
    await bench.drag({ x: at.x + 8, y: at.y + 8 }, { x: at.x + 60, y: at.y - 6 });
    const turned = await bench.value(TURN);
    expect(Math.abs(turned)).toBeGreaterThan(5);
    await expect(page.getByRole('region', { name: 'Loose edits' })).toContainText('1 loose edit');
    await page.keyboard.press('d');
    await expect(page.getByRole('region', { name: 'Loose edits' })).toBeHidden();
    await expect.poll(() => bench.value(TURN)).toBe(turned);
  });

  await test.step('an angle typed at frame 24 and 48, keyed; values typed for the first key', async () => {
    await bench.goTo(24);
    await bench.type('Turn Y', '90');
    await page.keyboard.press('Shift+d');
    await bench.goTo(48);
    await bench.type('Turn Y', '45 + 2*90');
    await bench.row(TURN).getByText('turn').click();
    await page.keyboard.press('d');
    await bench.goTo(0);
    await page.keyboard.press('k');
    await bench.type('Value', '0');
    await expect.poll(() => bench.value(TURN)).toBe(0);
    await bench.goTo(48);
    await expect.poll(() => bench.value(TURN)).toBe(225);
  });

  await test.step('a key dragged in the Chart: whole frames, a chip, Esc gives it up', async () => {
    const from = await bench.place(24, 90, '°');
    const to = await bench.place(30, 120, '°');
    await bench.drag(from, to, false);
    await page.keyboard.press('Escape');
    await page.mouse.up();
    expect(curveIn(await bench.save(), TURN).keys[1]).toMatchObject({ frame: 24, value: 90 });
    await bench.drag(from, to);
    const moved = curveIn(await bench.save(), TURN).keys[1]!;
    expect(moved.frame).toBe(30);
    expect(moved.value).toBeGreaterThan(110);
    expect(moved.value).toBeLessThan(130);
  });

  await test.step('a handle dragged: the side is Set, its reach and slope follow the pointer', async () => {
    const before = curveIn(await bench.save(), TURN).keys[1]!;
    await bench.goTo(30);
    await page.keyboard.press('k');
    await bench.settled();
    const speed = Number(await bench.field('Speed out'));
    const reach = Number(await bench.field('Reach out'));
    expect(reach).toBeCloseTo(1 / 3, 3);
    const endFrame = 30 + 18 * reach;
    const endValue = before.value + (speed / 24) * 18 * (1 / 3);
    const goal = { frame: 30 + 9, value: before.value + 10 };
    await bench.drag(
      await bench.place(endFrame, endValue, '°'),
      await bench.place(goal.frame, goal.value, '°'),
    );
    const out = curveIn(await bench.save(), TURN).keys[1]!.out!;
    expect(out.mode).toBe('set');
    expect(out.reach).toBeCloseTo(0.5, 1);
    expect(out.slope! * 9).toBeCloseTo(10, -1);
  });

  await test.step('sides: Flat, Linear and Split, Bounded, Smooth, Set by number', async () => {
    const side = (word: string, mode: string) =>
      page.getByRole('group', { name: `How the curve ${word}` }).getByRole('button', { name: mode });
    const key = async () => curveIn(await bench.save(), TURN).keys[1]!;
    await side('arrives', 'Flat').click();
    expect(await key()).toMatchObject({ in: { mode: 'flat' }, out: { mode: 'flat' } });
    await side('leaves', 'Linear').click();
    expect(await key()).toMatchObject({ in: { mode: 'flat' }, out: { mode: 'linear' }, joined: false });
    await page.getByRole('button', { name: 'Joined' }).click();
    await side('arrives', 'Bounded').click();
    expect(await key()).toMatchObject({ in: { mode: 'bounded' }, out: { mode: 'bounded' } });
    await side('arrives', 'Smooth').click();
    await page.getByRole('button', { name: 'Split' }).click();
    await bench.type('Speed out', '30 rpm');
    expect(await key()).toMatchObject({ out: { mode: 'set', slope: 180 / 24 }, joined: false });
    expect((await key()).in?.mode ?? 'smooth').toBe('smooth');
  });

  await test.step('Loop and carry after the last key; the pump follows by the slider-crank', async () => {
    await page.getByLabel('After', { exact: true }).selectOption({ label: 'Loop and carry' });
    await bench.goTo(144);
    await expect.poll(() => bench.value(TURN)).toBe(675);
    const file = await bench.save();
    expect(curveIn(file, TURN).after).toMatchObject({ mode: 'loop-carry' });
    for (const frame of [0, 30, 77, 143]) {
      await bench.goTo(frame);
      await expect
        .poll(() => bench.value(TURN))
        .toBeCloseTo(sampled(file, TURN, `${frame}:${frame}`).get(frame)!, 1);
      const slide = sampled(file, 'piston/translate.x', `${frame}:${frame}`).get(frame)!;
      await expect.poll(() => bench.value('piston/translate.x')).toBeCloseTo(slide, 3);
    }
  });

  await test.step('Space plays past the keys and round the range, Space stops', async () => {
    await bench.goTo(100);
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
    await expect.poll(async () => bench.value(TURN)).toBeGreaterThan(700);
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
  });

  const file = await bench.save();
  await test.step('ten steps undone and done again give the very same project', async () => {
    for (let i = 0; i < 10; i++) await page.keyboard.press('Control+z');
    const undone = curveIn(await bench.save(), TURN);
    expect(undone).not.toEqual(curveIn(file, TURN));
    for (let i = 0; i < 10; i++) await page.keyboard.press('Control+Shift+z');
    expect(readJson(await bench.save())).toEqual(readJson(file));
  });

  await test.step('nothing saved by hand: closed and come back, all is there, loose edits too', async () => {
    await bench.goTo(60);
    await bench.row('pump').click();
    await bench.type('Place X', 'by 0.25');
    await expect(page.getByRole('region', { name: 'Loose edits' })).toContainText('1 loose edit');
    await bench.kept();
    const url = page.url();
    const context = page.context();
    await page.close({ runBeforeUnload: true });
    const again = await context.newPage();
    await again.goto(url);
    const back = new Bench(again);
    await back.ready();
    await expect(again.getByRole('region', { name: 'Loose edits' })).toContainText('Pump, place X');
    await expect.poll(() => back.field('Frame of the playhead')).toBe('60');
    expect(readJson(await back.save())).toEqual(readJson(file));

    await test.step('exported as GLB: another reader plays the same places, and the validator is content', async () => {
      await again.getByRole('link', { name: 'Hand over' }).click();
      const download = again.waitForEvent('download');
      await again.getByRole('button', { name: 'Write .glb' }).click();
      const bytes = new Uint8Array(readFileSync(await pathOf(await download)));
      const report = await validateBytes(bytes);
      expect(report.issues.messages.filter((issue) => issue.severity < 2)).toEqual([]);
      const played = await playGlb(bytes);
      for (const frame of [0, 33, 150]) {
        const slide = sampled(file, 'piston/translate.x', `${frame}:${frame}`).get(frame)!;
        const [x] = played.pointAt('piston', [0, 0, 0], frame / 24);
        expect(Math.abs(x - slide)).toBeLessThan(1e-4);
      }
    });
  });
  expect(errors).toEqual([]);
});

test('packed models are unpacked by the command line as it is built', async () => {
  const info = test.info();
  for (const how of ['Draco', 'meshopt'] as const) {
    const [file, project] = ['glb', 'kaizen.json'].map((end) => info.outputPath(`${how}.${end}`)) as [
      string,
      string,
    ];
    writeFileSync(file, await packed(how));
    expect(kaizen('convert', file, project)).toMatchObject({ code: 0 });
    expect(kaizen('sample', project, '--channels', 'Rim/translate.y', '--frames', '24:24').out).toContain(
      '24,2',
    );
  }
});

test('packed models are unpacked by the page alone, its policy left as strict as it is', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New, empty' }).click();
  const bench = new Bench(page);
  await expect(bench.canvas).toBeVisible();
  for (const how of ['Draco', 'meshopt'] as const) {
    await drop(page, [{ name: `${how}.glb`, bytes: await packed(how) }]);
    await expect(page.getByRole('status').filter({ hasText: 'kept unpacked' })).toBeVisible();
  }
  await expect(bench.row('Rim')).toBeVisible();
  await expect(bench.row('Rim-2')).toBeVisible();
});

test('a model that somebody else made: dropped, one part keyed and looped, exported', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New, empty' }).click();
  const bench = new Bench(page);
  await expect(bench.canvas).toBeVisible();
  await drop(page, [{ name: 'vane.glb', bytes: foreignGlb() }]);
  await expect(bench.row('Mast')).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: '2 parts brought' })).toBeVisible();
  await bench.row('Vane').click();
  await bench.type('Turn Y', '0');
  await page.keyboard.press('d');
  await bench.goTo(24);
  await bench.type('Turn Y', '120');
  await page.keyboard.press('d');
  await bench.row('Vane/rotate.y').getByText('turn').click();
  await page.getByLabel('After', { exact: true }).selectOption({ label: 'Loop and carry' });
  await bench.goTo(72);
  await expect.poll(() => bench.value('Vane/rotate.y')).toBe(360);
  await page.getByRole('link', { name: 'Hand over' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write .glb' }).click();
  const bytes = new Uint8Array(readFileSync(await pathOf(await download)));
  const report = await validateBytes(bytes);
  expect(report.issues.messages.filter((issue) => issue.severity < 2)).toEqual([]);
  const played = await playGlb(bytes);
  const [x, , z] = played.pointAt('Vane', [1, 0, 0], 18 / 24);
  const turn = ((18 / 24) * 120 * Math.PI) / 180;
  expect(Math.hypot(x - (2 + Math.cos(turn)), z + Math.sin(turn))).toBeLessThan(1e-3);
});
