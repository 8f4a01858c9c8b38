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
  const server = await serveStudio();
  try {
    const open = (source) => opened(browser, source);
    return [
      ...(await measureOpening(browser, validator)),
      await measureModel(browser, open, JSON.stringify(bigProject(1)), upload),
      ...(await measureDrivetrain(open)),
    ];
  } finally {
    server.kill();
  }
}

export async function serveStudio() {
  const server = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, PORT: String(PORT) },
    stdio: 'ignore',
  });
  await answered(`http://localhost:${PORT}/health`);
  return server;
}

/** Each round opens new pages, and waits until all that they fetch ahead is there. */
const ROUNDS = 5;

/** A big project opened and edited, a small one opened, and what reading the big one's text costs at least: by turns. */
export async function measureOpening(browser, validator) {
  const text = JSON.stringify(bigProject());
  const rounds = [];
  for (let i = 0; i < ROUNDS; i++) {
    const reference = await parsedAndChecked(browser, validator, text);
    rounds.push({
      ...(await openedAndEdited(browser, text)),
      reference,
      small: await readyOf(browser, bigProject(1)),
    });
  }
  const all = (name) => rounds.map((round) => round[name]).sort((a, b) => a - b);
  const middle = (name) => all(name)[ROUNDS >> 1];
  const shown = (name) =>
    `${middle(name).toFixed(0)} ms, of ${ROUNDS} from ${all(name)[0].toFixed(0)} to ${all(name).at(-1).toFixed(0)}`;
  const size = (text.length / 1e6).toFixed(1);
  const software = 'Chromium without a GPU: the view is drawn by the processor';
  return [
    row(
      `the studio: 6,000 curves of 40 keys and 1,000 parts dropped (${size} MB) until the Bench is ready (${shown('ready')}; ${middle('drawn').toFixed(0)} ms until the view is drawn; a project of one part: ${middle('small').toFixed(0)} ms; ${software}), against JSON.parse and the generated validator in such a page (${shown('reference')})`,
      middle('ready') / middle('reference'),
      4,
      'times as long',
    ),
    row(
      `the studio: the longest task of the page while that opens (${shown('opening')}; ${software})`,
      middle('opening'),
      100,
      'ms',
    ),
    row(
      `the studio: the longest task while keys are set and undone there (${shown('editing')}; ${software})`,
      middle('editing'),
      50,
      'ms',
    ),
  ];
}

/** How long a project takes from its drop until the Bench is ready and until the view is drawn, and the longest tasks then and while keys are set. */
async function openedAndEdited(browser, text) {
  const page = await openProjects(browser);
  const longest = () => page.evaluate(() => Math.max(0, ...window.tasks));
  const { ready, drawn } = await dropped(page, text);
  await page.waitForTimeout(6000);
  const opening = await longest();
  await page.locator('kz-rows-panel .row').nth(2).click();
  await page.waitForTimeout(1500);
  await page.evaluate(() => (window.tasks.length = 0));
  for (const key of ['d', 'ArrowRight', 'd', 'Control+z', 'Control+z']) {
    await page.keyboard.press(key);
    await page.waitForTimeout(400);
  }
  const editing = await longest();
  await page.close();
  return { ready, drawn, opening, editing };
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
 * Drops a project's text on a page; gives when the Bench was ready and the view drawn. To hand the text to the page takes tasks, too:
 * they are over, and forgotten, before.
 */
async function dropped(page, text) {
  await page.evaluate((source) => (window.file = new File([source], 'big.kaizen.json')), text);
  await page.waitForTimeout(500);
  await page.evaluate(() => (window.tasks.length = 0));
  await page.evaluate(drop);
  return page.evaluate(() => window.waited);
}

/**
 * Runs in the page: drops `file` on it. `waited` tells how long it takes until rows and Chart are there and two more frames
 * are drawn, and until the view is drawn.
 */
function drop() {
  const transfer = new DataTransfer();
  transfer.items.add(window.file);
  const began = performance.now();
  window.waited = new Promise((done) => {
    let [ready, drawn] = [0, 0];
    // To look through the whole page in each frame would take a good part of what is measured.
    const [panels, charts, views] = ['kz-rows-panel', 'kz-chart', 'kz-view'].map((name) =>
      document.getElementsByTagName(name),
    );
    const has = (elements, selector) => (elements[0]?.querySelector(selector) ?? null) !== null;
    const look = () => {
      if (ready === 0 && has(panels, '.row') && has(charts, 'canvas[data-axis]')) {
        ready = -1;
        requestAnimationFrame(() => requestAnimationFrame(() => (ready = performance.now() - began)));
      }
      if (drawn === 0 && has(views, 'canvas[data-state=drawn]')) drawn = performance.now() - began;
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
  const { ready } = await dropped(page, JSON.stringify(project));
  await page.close();
  return ready;
}

/** A page with a project on the Bench. */
async function opened(browser, text) {
  const page = await openProjects(browser);
  await dropped(page, text);
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
