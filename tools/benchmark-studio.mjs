/** What a user of the whole studio waits for: a project of 6,000 curves dropped on the page, and edited there. */
import { spawn } from 'node:child_process';
import { measureDrivetrain } from './benchmark-drivetrain.mjs';
import { measureModel } from './benchmark-model.mjs';
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

/**
 * `validator` is a script that leaves the generated validator as `window.validate`, `upload` one that leaves the least that a model
 * costs as `window.readAndDrawn`.
 */
export async function measureStudio(browser, { validator, upload }) {
  const server = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, PORT: String(PORT) },
    stdio: 'ignore',
  });
  try {
    await answered(`http://localhost:${PORT}/health`);
    const text = JSON.stringify(bigProject());
    const page = await openProjects(browser);
    await page.evaluate((source) => (window.bigText = source), text);
    await page.evaluate(drop);
    const { ready, drawn } = await page.evaluate(() => window.waited);
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
    await page.close();
    const reference = await parsedAndChecked(browser, validator, text);
    const empty = await readyOf(browser, bigProject(1));
    const open = (source) => opened(browser, source);
    const model = await measureModel(browser, open, JSON.stringify(bigProject(1)), upload);
    const drivetrain = await measureDrivetrain(open);
    const size = (text.length / 1e6).toFixed(1);
    const software = 'Chromium without a GPU: the view is drawn by the processor';
    return [
      row(
        `the studio: 6,000 curves of 40 keys and 1,000 parts dropped (${size} MB) until the Bench is ready (${ready.toFixed(0)} ms, and ${drawn.toFixed(0)} ms until the view is drawn; a project of one part: ${empty.toFixed(0)} ms; ${software}), against JSON.parse and the generated validator in such a page (${reference.toFixed(0)} ms)`,
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
      model,
      ...drivetrain,
    ];
  } finally {
    server.kill();
  }
}

/** The Projects page in a new browser context, all it fetches ahead fetched, its long tasks noted from now on. */
async function openProjects(browser) {
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
  return page;
}

/**
 * Runs in the page: drops `bigText` on it. `waited` tells how long it takes until rows and Chart are there and two more frames
 * are drawn, and until the view is drawn.
 */
function drop() {
  const transfer = new DataTransfer();
  transfer.items.add(new File([window.bigText], 'big.kaizen.json'));
  const began = performance.now();
  window.waited = new Promise((done) => {
    let [ready, drawn] = [0, 0];
    const look = () => {
      const there = (selector) => document.querySelector(selector) !== null;
      const bench = there('kz-rows-panel .row') && there('kz-chart canvas[data-axis]');
      if (bench && ready === 0) {
        ready = -1;
        requestAnimationFrame(() => requestAnimationFrame(() => (ready = performance.now() - began)));
      }
      if (drawn === 0 && there('kz-view canvas[data-state=drawn]')) drawn = performance.now() - began;
      if (ready > 0 && drawn > 0) done({ ready, drawn });
      else requestAnimationFrame(look);
    };
    look();
  });
  document
    .querySelector('kz-root')
    .dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, bubbles: true, cancelable: true }));
}

/** How long a project takes from its drop until the Bench is ready, in milliseconds. */
async function readyOf(browser, project) {
  const page = await openProjects(browser);
  await page.evaluate((source) => (window.bigText = source), JSON.stringify(project));
  await page.evaluate(drop);
  const { ready } = await page.evaluate(() => window.waited);
  await page.close();
  return ready;
}

/** A page with a project on the Bench. */
async function opened(browser, text) {
  const page = await openProjects(browser);
  await page.evaluate((source) => (window.bigText = source), text);
  await page.evaluate(drop);
  await page.evaluate(() => window.waited);
  return page;
}

/** What reading a text costs at least: JSON.parse and the generated validator in a page, in milliseconds. */
async function parsedAndChecked(browser, validator, text) {
  const page = await browser.newPage();
  await page.evaluate(validator);
  const milliseconds = await page.evaluate((source) => {
    const began = performance.now();
    if (!window.validate(JSON.parse(source))) throw new Error('the document is not good');
    return performance.now() - began;
  }, text);
  await page.close();
  return milliseconds;
}

function row(what, value, most, unit) {
  const shown = unit === 'ms' ? value.toFixed(0) : value.toFixed(2);
  // the page tells of tasks from 50 ms on only
  const measured = unit === 'ms' && value === 0 ? 'under 50 ms' : `${shown} ${unit}`;
  return { what, measured, wanted: `at most ${most}`, good: value <= most };
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
