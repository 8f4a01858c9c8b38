import { sampled } from './cli';
import { machineYard } from './made-up';
import { Bench, chooseChannel, dropped, press, readJson, tab } from './pages';
import { expect, test } from './test';

interface SavedPart {
  readonly id: string;
  readonly parent?: string;
  readonly geometry?: { readonly shape: string; readonly outline: readonly (readonly [number, number])[] };
}
/** Chooses a part and which of its channels the next driver is for. */
async function toDrive(bench: Bench, part: string, channel: string): Promise<void> {
  await bench.row(part).click();
  await tab(bench.page, 'Links');
  await bench.page.getByRole('combobox', { name: 'Channel to drive' }).selectOption({ label: channel });
}

const partsIn = (file: string) => readJson(file)['parts'] as readonly SavedPart[];

test('a pennant follows the turn of its boom springily, and closes with the loop', async ({ page }) => {
  const bench = await dropped(page, machineYard());
  await toDrive(bench, 'pennant', 'turn Y');
  await press(page, 'Follow …');
  await bench.row('boom/rotate.y').locator('.name').click();
  await bench.type('Swings of turn Y', '0.9');
  await bench.type('Damping of turn Y', '0.3');
  const file = await bench.save();
  const follower = sampled(file, 'pennant/rotate.y', '0:240:1');
  const boom = sampled(file, 'boom/rotate.y', '0:240:1');
  for (const frame of [0, 17, 60, 119])
    expect(Math.abs(follower.get(frame + 120)! - follower.get(frame)!)).toBeLessThan(1e-9);
  expect(Math.max(...follower.values())).toBeGreaterThan(Math.max(...boom.values()) + 1);
  expect(follower.get(30)!).toBeLessThan(boom.get(30)! - 1);
});

test('a carriage: its wheel and four bars picked piece by piece stay together, however its run is retimed', async ({
  page,
}) => {
  const bench = await dropped(page, machineYard());
  await test.step('the wheel on the way of its wagon, the crank from the wheel, the bars from the crank', async () => {
    await bench.row('wheel').click();
    await tab(page, 'Links');
    await press(page, 'Wheel …');
    await bench.row('carriage').click();
    await expect(page.getByText('Read off the parts: radius 0.25 m')).toBeVisible();
    await toDrive(bench, 'crank', 'turn Z');
    await press(page, 'Formula …');
    await bench.row('wheel/rotate.y').locator('.name').click();
    const formula = page.getByRole('textbox', { name: 'Formula of turn Z' });
    await formula.fill('ab');
    await formula.press('Tab');
    await expect(formula).toHaveValue('abs()');
    await formula.fill('x * 2 + nothing');
    await expect(page.locator('kz-formula-field .bad')).toContainText('"nothing" is neither an input');
    await expect(page.locator('kz-formula-field .place')).toHaveText(/^ {8}\^$/);
    await formula.fill('x * 0.75');
    await expect(page.locator('kz-formula-field .value')).toHaveText(/^= −?[\d.]+ °$/);
    await formula.press('Enter');
    await page.getByRole('button', { name: 'Open Rocker', exact: true }).click();
    await bench.row('crank').click();
    await press(page, 'Four bars …');
    for (const id of ['coupler', 'rocker', 'pin']) await bench.row(id).click();
    await expect(page.getByText(/Read off the parts: ground 0\.632 m, crank 0\.16 m, coupler/)).toBeVisible();
  });
  const check = (file: string) => {
    const frames = '0:140:7';
    const [run, turn] = [
      sampled(file, 'carriage/translate.x', frames),
      sampled(file, 'wheel/rotate.y', frames),
    ];
    const points = (channel: string) => sampled(file, channel, frames);
    const [x, y, lean] = ['coupler/translate.x', 'coupler/translate.y', 'coupler/rotate.z'].map(points);
    const [swing] = ['rocker/rotate.z'].map(points);
    for (const [frame, place] of run) {
      const rolled = ((turn.get(frame)! - turn.get(0)!) * Math.PI) / 180;
      expect(Math.abs(Math.abs(rolled * 0.25) - Math.abs(place - run.get(0)!))).toBeLessThan(1e-9);
      // the joint as the coupler has it, and as the rocker has it: 0.45 m under its pivot
      const [a, b] = [lean!.get(frame)!, swing!.get(frame)!].map((angle) => (angle * Math.PI) / 180);
      const [dx, dy] = [-0.76, -0.25];
      const end = [
        x!.get(frame)! + dx * Math.cos(a!) - dy * Math.sin(a!),
        y!.get(frame)! + dx * Math.sin(a!) + dy * Math.cos(a!),
      ];
      const joint = [-0.95 + 0.45 * Math.sin(b!), 1.15 - 0.45 * Math.cos(b!)];
      expect(Math.hypot(end[0]! - joint[0]!, end[1]! - joint[1]!)).toBeLessThan(1e-9);
    }
  };
  check(await bench.save());
  await chooseChannel(bench, 'carriage/translate.x');
  await tab(page, 'Time');
  await bench.type('Speed', '130');
  await bench.goTo(20);
  await page.getByRole('button', { name: 'Push after' }).click();
  check(await bench.save());
});

test('two rakes of the sample carriage are mirrored, half a cycle apart, whatever becomes of the run', async ({
  page,
}) => {
  const bench = await Bench.openSample(page, 'Rake carriage');
  await chooseChannel(bench, 'carriage/translate.x');
  await tab(page, 'Time');
  await bench.type('Speed', '80');
  const file = await bench.save();
  const over = (channel: string) => sampled(file, channel, '0:100:0.05');
  const [belt, left, right] = ['crank-left/custom.belt', 'rake-left/rotate.z', 'rake-right/rotate.z'].map(
    over,
  );
  const frames = [...belt!.keys()];
  const later = (frame: number) =>
    frames.find((each) => each > frame && Math.abs(belt!.get(each)! - belt!.get(frame)!) >= 180);
  let compared = 0;
  for (const frame of frames.filter((_, i) => i % 100 === 0)) {
    const half = later(frame);
    if (half === undefined) continue;
    expect(Math.abs(left!.get(half)! + right!.get(frame)!)).toBeLessThan(0.4);
    compared++;
  }
  expect(compared).toBeGreaterThan(5);
});

test('a cam with two dwells lifts a valve, and its disc is made a part; a belt turns a rotor', async ({
  page,
}) => {
  const bench = await dropped(page, machineYard());
  await toDrive(bench, 'valve', 'place Y');
  await press(page, 'Mechanism …');
  await bench.row('shaft/rotate.z').locator('.name').click();
  await page.getByRole('combobox', { name: 'Mechanism of place Y' }).selectOption({ label: 'cam' });
  await page.getByRole('combobox', { name: 'How the driver of place Y acts' }).selectOption({
    label: 'Added to its keys',
  });
  const lift = page.getByRole('textbox', { name: /^Lift of stretch/ });
  await expect(lift.first()).toBeVisible();
  await bench.type('Radius of the roller', '0.05');
  await expect(page.locator('kz-cam-form')).toContainText(
    /Base circle 0\.\d{3} m\. Pressure angle \d+\.\d° at most/,
  );
  await press(page, 'Make the disc a part');
  await expect(page.getByText(/A disc stands on the shaft: base circle of radius/)).toBeVisible();
  const file = await bench.save();
  const disc = partsIn(file).find(({ geometry }) => geometry?.shape === 'extrude')!;
  expect(disc.parent).toBe('shaft');
  const [turn, place] = ['shaft/rotate.z', 'valve/translate.y'].map((channel) =>
    sampled(file, channel, '0:120:8'),
  );
  for (const [frame, angle] of turn!) {
    const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    const edge = disc.geometry!.outline.map(([x, y]) => [x * cos - y * sin, x * sin + y * cos] as const);
    const nearest = Math.min(...edge.map(([x, y]) => Math.hypot(x, y - (place!.get(frame)! - 1))));
    expect(Math.abs(nearest - 0.05)).toBeLessThan(2e-3);
  }
  await test.step('a belt from the shaft turns a rotor by the radii of its pulleys', async () => {
    await toDrive(bench, 'rotor', 'turn Z');
    await press(page, 'Mechanism …');
    await bench.row('shaft/rotate.z').locator('.name').click();
    await page
      .getByRole('combobox', { name: 'Mechanism of turn Z' })
      .selectOption({ label: 'belt or chain' });
    const saved = await bench.save();
    const [from, to] = ['shaft/rotate.z', 'rotor/rotate.z'].map((channel) =>
      sampled(saved, channel, '0:120:60'),
    );
    const { params } = (
      readJson(saved)['drivers'] as { target: string; params: Record<string, number> }[]
    ).find(({ target }) => target === 'rotor/rotate.z')!;
    expect(to!.get(120)! - to!.get(0)!).toBeCloseTo(
      ((from!.get(120)! - from!.get(0)!) * params['radiusIn']!) / params['radiusOut']!,
      9,
    );
  });
});
