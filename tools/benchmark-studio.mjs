/** What a user of the whole studio waits for: a project of 6,000 curves dropped on the page, and edited there. */
import { spawn } from 'node:child_process';
import { root } from './build.mjs';

const PORT = 4297;
const [PARTS, KEYS] = [1000, 40];
const PROPERTIES = ['translate.x', 'translate.y', 'translate.z', 'rotate.x', 'rotate.y', 'rotate.z'];

/** Where a box stands, so that they do not all lie on each other. */
function baseOf(i, property) {
  return { 'translate.x': i % 40, 'translate.y': 0.3, 'translate.z': Math.floor(i / 40) }[property] ?? 0;
}

/** A project of boxes with keys on each of six channels. */
export function bigProject(count = PARTS) {
  const parts = Array.from({ length: count }, (_, i) => ({
    id: `box-${i}`,
    name: `Box ${i}`,
    kind: 'mesh',
    geometry: { shape: 'box', size: [0.5, 0.5, 0.5] },
    rest: { translate: [i % 40, 0.3, Math.floor(i / 40)] },
  }));
  const curves = parts.flatMap(({ id }, i) =>
    PROPERTIES.map((property) => ({
      channel: `${id}/${property}`,
      keys: Array.from({ length: KEYS }, (_, k) => ({
        frame: k * 6,
        value: baseOf(i, property) + 0.3 * Math.sin(i * 0.37 + k * 1.3),
      })),
    })),
  );
  return {
    format: 'kaizen',
    version: 1,
    id: 'big',
    name: 'Big',
    rate: { frames: 24, per: 1 },
    range: { start: 0, end: 240 },
    parts,
    clips: [{ id: 'main', name: 'Main', curves }],
    activeClip: 'main',
  };
}

/** `validate` runs the generated validator on a document and gives the milliseconds it took. */
export async function measureStudio(browser, validate) {
  const server = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, PORT: String(PORT) },
    stdio: 'ignore',
  });
  try {
    await answered(`http://localhost:${PORT}/health`);
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await page.goto(`http://localhost:${PORT}/projects`);
    await page.getByRole('button', { name: 'New, empty' }).waitFor();
    await page.waitForTimeout(8000);
    await page.evaluate(() => {
      window.tasks = [];
      new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) window.tasks.push(duration);
      }).observe({ entryTypes: ['longtask'] });
    });
    const text = JSON.stringify(bigProject());
    const parsed = await page.evaluate((source) => {
      const began = performance.now();
      window.bigText = JSON.parse(source) && source;
      return performance.now() - began;
    }, text);
    const checked = validate(JSON.parse(text));
    await page.evaluate(() => {
      window.tasks.length = 0;
      window.began = performance.now();
      const transfer = new DataTransfer();
      transfer.items.add(new File([window.bigText], 'big.kaizen.json'));
      document
        .querySelector('kz-root')
        .dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, bubbles: true, cancelable: true }));
    });
    await page.locator('kz-rows-panel .row').first().waitFor({ timeout: 120_000 });
    const ready = await page.evaluate(
      () =>
        new Promise((done) =>
          requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - window.began))),
        ),
    );
    await page.waitForTimeout(6000);
    const opening = await page.evaluate(() => Math.max(0, ...window.tasks));
    await page.locator('kz-rows-panel .row').nth(2).click();
    await page.waitForTimeout(1500);
    await page.evaluate(() => (window.tasks.length = 0));
    for (const key of ['d', 'ArrowRight', 'd', 'Control+z', 'Control+z']) {
      await page.keyboard.press(key);
      await page.waitForTimeout(400);
    }
    const editing = await page.evaluate(() => Math.max(0, ...window.tasks));
    const reference = parsed + checked;
    const size = (text.length / 1e6).toFixed(1);
    const software = 'Chromium without a GPU: the view is drawn by the processor';
    return [
      row(
        `the studio: 6,000 curves of 40 keys and 1,000 parts dropped (${size} MB) until the Bench is ready (${ready.toFixed(0)} ms; ${software}), against JSON.parse in the same page and the generated validator (${reference.toFixed(0)} ms)`,
        ready / reference,
        4,
        'times as long',
      ),
      row(`the studio: the longest task of the page while that opens (${software})`, opening, 100, 'ms'),
      row(
        `the studio: the longest task while keys are set and undone there (${software})`,
        editing,
        50,
        'ms',
      ),
    ];
  } finally {
    server.kill();
  }
}

function row(what, value, most, unit) {
  const shown = unit === 'ms' ? value.toFixed(0) : value.toFixed(2);
  return { what, measured: `${shown} ${unit}`, wanted: `at most ${most}`, good: value <= most };
}

async function answered(url) {
  for (let i = 0; i < 100; i++) {
    if (
      await fetch(url).then(
        () => true,
        () => false,
      )
    )
      return;
    await new Promise((later) => setTimeout(later, 100));
  }
  throw new Error('the server does not answer');
}
