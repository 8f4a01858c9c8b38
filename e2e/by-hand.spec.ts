import * as d3 from 'd3-ease';
import { type Page } from '@playwright/test';
import { rates, sampled } from './cli';
import { dropped, press, type Bench } from './pages';
import { expect, test } from './test';

/** What the contract says of legs, sides, outsides and treatments, set by hand in the Bench and read from the file it saves. */
const ID = 'bar/translate.y';
const bar = (keys: readonly object[], more: object = {}) => ({
  format: 'kaizen',
  version: 1,
  id: 'bar',
  name: 'Bar',
  rate: { frames: 24, per: 1 },
  range: { start: 0, end: 96 },
  parts: [{ id: 'bar', name: 'Bar', kind: 'mesh', geometry: { shape: 'box', size: [1, 0.2, 0.2] } }],
  clips: [{ id: 'main', name: 'Main', curves: [{ channel: ID, keys, ...more }] }],
  activeClip: 'main',
});

async function opened(page: Page, project: object): Promise<Bench> {
  const bench = await dropped(page, project);
  await bench.row(ID).locator('.name').click();
  await page.keyboard.press('Shift+0');
  await bench.settled();
  return bench;
}

async function chooseKey(bench: Bench, frame: number, value: number): Promise<void> {
  const at = await bench.place(frame, value, 'm');
  await bench.page.mouse.click(at.x, at.y);
  await expect.poll(() => bench.field('Frame')).toBe(String(frame));
}

const families = {
  sine: [d3.easeSinIn, d3.easeSinOut, d3.easeSinInOut],
  quad: [d3.easeQuadIn, d3.easeQuadOut, d3.easeQuadInOut],
  cubic: [d3.easeCubicIn, d3.easeCubicOut, d3.easeCubicInOut],
  quart: [d3.easePolyIn.exponent(4), d3.easePolyOut.exponent(4), d3.easePolyInOut.exponent(4)],
  quint: [d3.easePolyIn.exponent(5), d3.easePolyOut.exponent(5), d3.easePolyInOut.exponent(5)],
  exp: [d3.easeExpIn, d3.easeExpOut, d3.easeExpInOut],
  circle: [d3.easeCircleIn, d3.easeCircleOut, d3.easeCircleInOut],
  back: [d3.easeBackIn, d3.easeBackOut, d3.easeBackInOut],
  elastic: [d3.easeElasticIn, d3.easeElasticOut, d3.easeElasticInOut],
  bounce: [d3.easeBounceIn, d3.easeBounceOut, d3.easeBounceInOut],
} as const;

/** Laws in closed form, a rise of 1 in time 1; the two with ramps by areas under their speed. */
const laws: Readonly<Record<string, (t: number) => number>> = {
  harmonic: (t) => (1 - Math.cos(Math.PI * t)) / 2,
  cycloidal: (t) => t - Math.sin(2 * Math.PI * t) / (2 * Math.PI),
  '3-4-5': (t) => 10 * t ** 3 - 15 * t ** 4 + 6 * t ** 5,
  '4-5-6-7': (t) => 35 * t ** 4 - 84 * t ** 5 + 70 * t ** 6 - 20 * t ** 7,
  'mod. sine': (t) => {
    const c = 1 / (4 + Math.PI);
    if (t < 1 / 8) return c * (Math.PI * t - Math.sin(4 * Math.PI * t) / 4);
    if (t < 7 / 8) return c * (2 + Math.PI * t - (9 / 4) * Math.sin((4 * Math.PI * t + Math.PI) / 3));
    return c * (4 + Math.PI * t - Math.sin(4 * Math.PI * t) / 4);
  },
  'mod. trap.': (t) => {
    // the contract's acceleration, integrated twice by Simpson's rule over its five pieces
    const A = (8 * Math.PI) / (2 + Math.PI);
    const a = (x: number) =>
      x < 1 / 8
        ? A * Math.sin(4 * Math.PI * x)
        : x < 3 / 8
          ? A
          : x < 5 / 8
            ? A * Math.cos(4 * Math.PI * (x - 3 / 8))
            : x < 7 / 8
              ? -A
              : -A * Math.cos(4 * Math.PI * (x - 7 / 8));
    let sum = 0;
    const stops = [0, 1 / 8, 3 / 8, 5 / 8, 7 / 8, 1].map((stop) => Math.min(stop, t));
    for (let k = 1; k < stops.length; k++) {
      const [from, to] = [stops[k - 1]!, stops[k]!];
      const h = (to - from) / 400;
      for (let n = 0; n < 400 && h > 0; n += 2)
        for (const [i, weight] of [1, 4, 1].entries()) {
          const x = Math.min(to - 1e-13, Math.max(from, from + (n + i) * h));
          sum += ((weight * h) / 3) * (t - x) * a(x);
        }
    }
    return sum;
  },
  trapezoid: (t) =>
    t < 1 / 3 ? 2.25 * t * t : t < 2 / 3 ? 0.25 + 1.5 * (t - 1 / 3) : 1 - 2.25 * (1 - t) ** 2,
  's-curve': (t) => {
    const up = (x: number) => (x < 1 / 6 ? 9 * x ** 3 : 9 * x ** 3 - 18 * (x - 1 / 6) ** 3);
    return t < 1 / 3 ? up(t) : t < 2 / 3 ? 0.25 + 1.5 * (t - 1 / 3) : 1 - up(1 - t);
  },
};

test('every ease and law, taken from its picture, is the function that it is called', async ({ page }) => {
  const bench = await opened(
    page,
    bar([
      { frame: 0, value: 1 },
      { frame: 24, value: 3 },
    ]),
  );
  await chooseKey(bench, 0, 1);
  await page.keyboard.press('Control+l');
  const judge = async (law: (t: number) => number, name: string) => {
    const within = name === 'mod. trap.' ? 1e-9 : 1e-12;
    for (const [frame, value] of sampled(await bench.save(), ID, '0:24:3'))
      expect(Math.abs(value - (1 + 2 * law(frame / 24))), `${name} at f ${frame}`).toBeLessThan(within);
  };
  const slows = ['slow start', 'slow end', 'both'];
  for (const [i, slow] of slows.entries()) {
    await page.locator('kz-leg-pictures').getByRole('button', { name: slow, exact: true }).click();
    for (const [name, functions] of Object.entries(families)) {
      if (i > 0 && !['back', 'bounce', 'quint'].includes(name)) continue;
      await page.getByRole('button', { name: `Ease ${name}:` }).click();
      await judge(functions[i]!, `${name}, ${slow}`);
    }
  }
  for (const [name, law] of Object.entries(laws)) {
    await page.getByRole('button', { name: `Law ${name}:` }).click();
    await judge(law, name);
  }
});

test('a free fall by the project’s and by its own gravity; a hold holds', async ({ page }) => {
  const bench = await opened(
    page,
    bar([
      { frame: 0, value: 2 },
      { frame: 24, value: 1 },
    ]),
  );
  await chooseKey(bench, 0, 2);
  const kind = (name: string) =>
    page.locator('kz-leg-form').getByRole('button', { name, exact: true }).click();
  await kind('Free fall');
  const fall = (g: number) => (t: number) => 2 + (-1 + g / 2) * t - (g * t * t) / 2;
  const judge = async (law: (t: number) => number) => {
    for (const [frame, value] of sampled(await bench.save(), ID, '0:24:3'))
      expect(value).toBeCloseTo(law(frame / 24), 9);
  };
  await judge(fall(9.81));
  await press(page, 'Project’s gravity');
  await bench.type('Gravity', '1.62');
  await judge(fall(1.62));
  await kind('Hold');
  await judge((t) => (t < 1 ? 2 : 1));
});

test('each side meets its key with the slope that its mode has', async ({ page }) => {
  const bench = await opened(
    page,
    bar([
      { frame: 0, value: 0 },
      { frame: 24, value: 1 },
      { frame: 36, value: 3 },
    ]),
  );
  await chooseKey(bench, 24, 1);
  const [d0, d1, h0, h1] = [1, 4, 1, 0.5];
  const [w1, w2] = [2 * h1 + h0, h1 + 2 * h0];
  const slopes = {
    Smooth: 3 / 1.5,
    Bounded: (w1 + w2) / (w1 / d0 + w2 / d1),
    Flat: 0,
    Linear: d1,
  };
  await press(page, 'Split');
  const leaves = page.getByRole('group', { name: 'How the curve leaves' });
  for (const [mode, slope] of Object.entries(slopes)) {
    await leaves.getByRole('button', { name: mode, exact: true }).click();
    expect(rates(await bench.save(), ID, '24:24').get(24)!.speed).toBeCloseTo(slope, 9);
  }
  await bench.type('Speed out', '-1.25');
  expect(rates(await bench.save(), ID, '24:24').get(24)!.speed).toBeCloseTo(-1.25, 9);
});

test('outside the keys each mode goes on as it is called, with a count and a pin', async ({ page }) => {
  const linear = { in: { mode: 'linear' }, out: { mode: 'linear' }, joined: false };
  const bench = await opened(
    page,
    bar([
      { frame: 0, value: 0, ...linear },
      { frame: 12, value: 2, ...linear },
      { frame: 24, value: 1, ...linear },
    ]),
  );
  const inside = (f: number) => (f <= 12 ? f / 6 : 2 - (f - 12) / 12);
  const modes: Readonly<Record<string, (f: number) => number>> = {
    Hold: () => 1,
    'Run on': (f) => 1 - (f - 24) / 12,
    Loop: (f) => inside(f % 24),
    'Loop and carry': (f) => inside(f % 24) + Math.floor(f / 24),
    Swing: (f) => (Math.floor(f / 24) % 2 === 1 ? inside(24 - (f % 24)) : inside(f % 24)),
  };
  const after = async (law: (f: number) => number) => {
    for (const [frame, value] of sampled(await bench.save(), ID, '25:95:5'))
      expect(value).toBeCloseTo(law(frame), 9);
  };
  for (const [label, law] of Object.entries(modes)) {
    await page.getByLabel('After', { exact: true }).selectOption({ label });
    await after(law);
  }
  await page.getByLabel('After', { exact: true }).selectOption({ label: 'Loop and carry' });
  await press(page, 'For ever');
  await bench.type('Repetitions after', '2.5');
  await after((f) => modes['Loop and carry']!(Math.min(f, 84)));
  await press(page, 'For ever');
  await page.getByLabel('Pin after').selectOption({ label: 'from f 12' });
  await after((f) => {
    const past = f - 24;
    return 2 - (past % 12) / 12 - (Math.floor(past / 12) + 1);
  });
});

/** The contract's noise, written here once more by its formula. */
function noise(f: number, period: number, seed: number): number {
  const hash = (x: number) => {
    x = Math.imul(x ^ (x >>> 16), 0x7feb352d);
    x = Math.imul(x ^ (x >>> 15), 0x846ca68b);
    return (x ^ (x >>> 16)) >>> 0;
  };
  const u = f / period;
  const i = Math.floor(u);
  const d = u - i;
  const g = (at: number) => (2 * hash((hash((hash(seed) + 0) | 0) + at) | 0)) / 2 ** 32 - 1;
  const t = d ** 3 * (6 * d * d - 15 * d + 10);
  const [a, b] = [g(i) * d, g(i + 1) * (d - 1)];
  return 2 * (a + (b - a) * t);
}

test('treatments, laid on by hand one over the other, ordered by keyboard, do what the contract says', async ({
  page,
}) => {
  const linear = { in: { mode: 'linear' }, out: { mode: 'linear' }, joined: false };
  const bench = await opened(
    page,
    bar([
      { frame: 0, value: 0, ...linear },
      { frame: 96, value: 4, ...linear },
    ]),
  );
  const x = (f: number) => Math.min(96, Math.max(0, f)) / 24;
  await page.getByRole('tab', { name: 'Curve' }).click();
  const lay = async (name: string) => {
    await press(page, 'Lay over ▾');
    await page.getByRole('menuitem', { name }).click();
    await expect(page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
  };
  const judge = async (law: (f: number) => number) => {
    for (const [frame, value] of sampled(await bench.save(), ID, '0:96:7'))
      expect(value, `f ${frame}`).toBeCloseTo(law(frame), 9);
  };
  await lay('Gain');
  await bench.type('Factor', '1.5');
  await bench.type('About', '1');
  const gained = (f: number) => 1 + 1.5 * (x(f) - 1);
  await judge(gained);
  await lay('Delay');
  await bench.type('Later by', '12');
  await judge((f) => gained(f - 12));
  await lay('Every n-th frame');
  await bench.type('Seen every', '10');
  const stepped = (f: number) => gained(10 * Math.floor(f / 10) - 12);
  await judge(stepped);
  const clampCard = page.locator('.card').filter({ hasText: 'Clamp' });
  await lay('Clamp');
  await clampCard.getByRole('button', { name: 'At most' }).click();
  await bench.type('At most', '3');
  await judge((f) => Math.min(3, stepped(f)));
  await lay('Noise');
  await bench.type('Amount', '0.25');
  await bench.type('Period', '9');
  await bench.type('Seed', '7');
  await judge((f) => Math.min(3, stepped(f)) + 0.25 * noise(f, 9, 7));
  await page.getByRole('button', { name: 'Order of Noise, place 5' }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: 'Order of Noise, place 4' })).toBeFocused();
  await judge((f) => Math.min(3, stepped(f) + 0.25 * noise(f, 9, 7)));
  await page.getByRole('button', { name: 'Mute Noise' }).click();
  await judge((f) => Math.min(3, stepped(f)));
  const delay = page.locator('.card').filter({ hasText: 'Delay' });
  await delay.getByRole('textbox', { name: 'Weight' }).fill('0.5');
  await delay.getByRole('textbox', { name: 'Weight' }).press('Enter');
  await delay.getByRole('textbox', { name: 'Weight' }).blur();
  const half = (f: number) => (gained(f) + gained(f - 12)) / 2;
  await judge((f) => Math.min(3, half(10 * Math.floor(f / 10))));
});
