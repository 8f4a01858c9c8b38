/** `npm run screenshots`: draws the sample cards' pictures (samples/*.png) and one picture of each main view (docs/screenshots/). */
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { findChromium, installPackages, stop } from './install.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = `${root}docs/screenshots`;
const PORT = 4295;
const CARD = { width: 472, height: 284 };

installPackages();
const server = spawn(process.execPath, [`${root}server/dist/main.js`], {
  env: { ...process.env, PORT: String(PORT) },
});
const address = await new Promise((resolve) => {
  server.stdout.on('data', (text) => resolve(/http:\S+/.exec(String(text))?.[0]));
  server.on('exit', () => resolve(undefined));
});
if (!address) stop('The server did not start; run npm run build first.');

const browser = await chromium.launch({
  executablePath: findChromium({ withWindows: true }),
  chromiumSandbox: false,
  args: [
    '--disable-gpu',
    '--enable-unsafe-swiftshader',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
  ],
});

async function open(options = {}) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    ...options,
  });
  return context.newPage();
}

async function openSample(page, id) {
  const samples = JSON.parse(readFileSync(`${root}samples/index.json`, 'utf8'));
  await page.goto(address);
  await page
    .getByRole('button', {
      name: `Open the sample ${samples.find((sample) => sample.id === id).name}`,
      exact: true,
    })
    .click();
  await page.locator('kz-rows-panel .row').first().waitFor();
  await page.waitForTimeout(1500);
}

async function shoot(page, name) {
  await page.mouse.move(640, 330);
  await page.waitForTimeout(1200);
  await page.screenshot({ path: `${folder}/${name}.png` });
  process.stdout.write(`docs/screenshots/${name}.png\n`);
}

async function type(page, name, text) {
  const field = page.getByRole('textbox', { name, exact: true });
  await field.fill(text);
  await field.press('Enter');
  await field.blur();
}

/** A point of the Chart on the page, by frame and value of its first strip. */
async function place(page, frame, value) {
  const canvas = page.locator('kz-chart canvas[data-axis]');
  const box = await canvas.boundingBox();
  const [first, last] = (await canvas.getAttribute('data-axis')).split(' ').map(Number);
  const [, top, height, low, high] = (await canvas.getAttribute('data-strips'))
    .split('; ')[0]
    .split(' ')
    .map(Number);
  return {
    x: box.x + ((frame - first) / (last - first)) * box.width,
    y: box.y + top + height * (1 - (value - low) / (high - low)),
  };
}

async function cardOf(id, frame) {
  const page = await open({ deviceScaleFactor: 2 });
  await openSample(page, id);
  await page.keyboard.press('v');
  await type(page, 'Frame of the playhead', String(frame));
  await page.waitForTimeout(1500);
  const png = await page.evaluate(({ width, height }) => {
    const source = document.querySelector('kz-view canvas');
    const small = document.createElement('canvas');
    Object.assign(small, { width, height });
    // the frame of the shot lies in the middle of the view
    const frame = document.querySelector('kz-shot-frame .frame').getBoundingClientRect();
    const dense = source.width / source.getBoundingClientRect().width;
    const scale = Math.max(width / (frame.width * dense), height / (frame.height * dense));
    const [w, h] = [source.width * scale, source.height * scale];
    small.getContext('2d').drawImage(source, (width - w) / 2, (height - h) / 2, w, h);
    return small.toDataURL('image/png').split(',')[1];
  }, CARD);
  writeFileSync(`${root}samples/${id}.png`, Buffer.from(png, 'base64'));
  process.stdout.write(`samples/${id}.png\n`);
  await page.context().close();
}

async function viewsOfTheWheel() {
  const page = await open();
  await openSample(page, 'brine-wheel');
  await page.locator('[data-row="wheel/rotate.y"]').getByText('turn').click();
  await type(page, 'Frame of the playhead', '60');
  await page.keyboard.press('k');
  const key = await place(page, 48, 180);
  await page.mouse.click(key.x, key.y);
  await shoot(page, 'bench-curves');
  await page.locator('[data-row="wheel"]').click();
  await page.keyboard.press('2');
  await type(page, 'Place X', '0.4');
  await shoot(page, 'loose-edits');
  await page.waitForTimeout(400);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('key');
  await shoot(page, 'palette');
  await page.keyboard.press('Escape');
  await page.getByRole('region', { name: 'Loose edits' }).getByRole('button', { name: 'Discard' }).click();
  await page.getByRole('link', { name: 'Hand over' }).click();
  await shoot(page, 'hand-over');
  await page.context().close();
}

/** Puts the shot's story on the ruler: markers at the ends of the hauls. */
async function addMarkers(page) {
  for (const [frame, name, kind] of [
    [36, 'skip full', 'note'],
    [150, 'tipping', 'hold'],
    [216, 'empty, back down', 'camera moves'],
  ]) {
    await type(page, 'Frame of the playhead', String(frame));
    await page.keyboard.press('n');
    const field = page.getByRole('textbox', { name: 'Name of the marker note' });
    await field.fill(name);
    await field.press('Enter');
    await page.getByLabel(`Kind of the marker ${name}`).selectOption({ label: kind });
  }
}

async function viewsOfTheSkip() {
  const page = await open();
  await openSample(page, 'skip');
  await page.getByRole('button', { name: 'Ticks' }).click();
  await addMarkers(page);
  await page.locator('[data-row="skip"]').click();
  await type(page, 'Frame of the playhead', '96');
  await page.getByRole('tab', { name: 'Time' }).click();
  await page.keyboard.press('j');
  await shoot(page, 'bench-ticks');
  await page.keyboard.press('Escape');
  await page.locator('[data-row="skip"]').click();
  await page.getByRole('tab', { name: 'Pose' }).click();
  for (const frame of ['0', '96', '150']) {
    await type(page, 'Frame of the playhead', frame);
    await page.waitForTimeout(600);
    await page.getByRole('button', { name: 'Keep this pose' }).click();
  }
  await shoot(page, 'poses');
  // Left as a user leaves it: the project's picture is taken then.
  await page.getByRole('link', { name: 'Projects', exact: true }).click();
  await page.locator('.kept img').waitFor();
  await shoot(page, 'projects');
  await page.context().close();
}

async function ratesOfTheSkip() {
  const page = await open();
  await openSample(page, 'skip');
  await page.locator('[data-row="skip/translate.x"]').getByText('place').click();
  await page.keyboard.press('Control+3');
  await page.keyboard.press('Shift+0');
  const key = await place(page, 180, 6.4);
  await page.mouse.click(key.x, key.y);
  await type(page, 'Frame of the playhead', '104');
  await shoot(page, 'bench-rates');
  await page.keyboard.press('Control+2');
  await page.keyboard.press('Control+l');
  await page.getByRole('button', { name: /^Law cycloidal/ }).focus();
  await page.waitForTimeout(300);
  await page.screenshot({ path: `${folder}/leg-pictures.png` });
  process.stdout.write('docs/screenshots/leg-pictures.png\n');
  await page.context().close();
}

async function manyKeysOfTheQuay() {
  const page = await open();
  await openSample(page, 'quay');
  await page.locator('[data-row="float/translate.y"]').locator('.name').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+b');
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('menuitemcheckbox', { name: /metres against metres/ }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+0');
  await type(page, 'Frame of the playhead', '24');
  await shoot(page, 'scale-box');
  await page.context().close();
}

async function treatmentsAtNight() {
  const page = await open({ colorScheme: 'dark' });
  await openSample(page, 'quay');
  await page.locator('[data-row="buoy/rotate.z"]').locator('.name').click();
  await page.getByRole('tab', { name: 'Curve' }).click();
  await page.getByRole('button', { name: 'Over time' }).click();
  await page.getByRole('button', { name: 'Plot it' }).click();
  await page.keyboard.press('Shift+0');
  await type(page, 'Frame of the playhead', '60');
  await shoot(page, 'treatments-night');
  await page.context().close();
}

/** The buoy's turn, swung by hand and treated four times: the noise swells and dies, a clamp holds it, a delay, and one that is passed by. */
async function lanesOfTheBuoy() {
  const page = await open();
  await openSample(page, 'quay');
  const row = page.locator('[data-row="buoy/rotate.z"]');
  await row.locator('.name').click();
  await page.getByRole('tab', { name: 'Key', exact: true }).click();
  for (const [frame, value] of [
    [24, 8],
    [48, -7],
    [72, 7],
    [96, -8],
    [120, 6],
    [144, 0],
  ]) {
    await type(page, 'Frame of the playhead', String(frame));
    await page.keyboard.press('d');
    await type(page, 'Value', String(value));
    await page.locator('body').click({ position: { x: 1100, y: 780 } });
    await row.locator('.name').click();
  }
  await page.getByRole('tab', { name: 'Curve' }).click();
  await type(page, 'Amount', '3');
  for (const [kind, fields] of [
    ['Clamp', []],
    ['Delay', [['Later by', '3']]],
    ['Every n-th frame', []],
  ]) {
    await page.getByRole('button', { name: 'Lay over ▾', exact: true }).click();
    await page.getByRole('menuitem', { name: kind }).click();
    for (const [name, value] of fields) await type(page, name, value);
    if (kind !== 'Clamp') continue;
    await page.getByRole('button', { name: 'At least' }).click();
    await type(page, 'At least', '-6');
    await page.getByRole('button', { name: 'At most' }).click();
    await type(page, 'At most', '6');
  }
  await page.getByRole('button', { name: 'Every n-th frame is passed by' }).click();
  await page.getByRole('button', { name: /^Noise, lane/ }).click();
  const box = await page.locator('kz-lanes canvas').boundingBox();
  for (const share of [0.2, 0.38, 0.62, 0.85]) {
    await page.mouse.dblclick(box.x + box.width * share, box.y + 20);
    await page.waitForTimeout(200);
  }
  for (const [share, height] of [
    [0.085, 44],
    [0.2, 44],
    [0.85, 34],
    [0.945, 34],
  ]) {
    await page.mouse.move(box.x + box.width * share, box.y + 5);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width * share, box.y + height, { steps: 4 });
    await page.mouse.up();
    await page.waitForTimeout(200);
  }
  await page.keyboard.press('Shift+0');
  await type(page, 'Frame of the playhead', '66');
  await shoot(page, 'lanes');
  await page.context().close();
}

async function twoHalves() {
  const page = await open();
  await openSample(page, 'skip');
  await page.locator('[data-row="skip"]').locator('.name').click();
  await page.keyboard.press('x');
  await page.mouse.move(500, 500);
  await page.keyboard.press('z');
  await page.waitForTimeout(600);
  await page.mouse.move(500, 300);
  await page.keyboard.press('Shift+0');
  await type(page, 'Frame of the playhead', '104');
  await page.mouse.move(20, 420);
  await page.waitForTimeout(1200);
  await page.screenshot({ path: `${folder}/two-halves.png` });
  process.stdout.write('docs/screenshots/two-halves.png\n');
  await page.context().close();
}

/** Two seconds of a winch: a hum that swells and dies. */
function winchWav() {
  const [rate, seconds] = [8000, 6];
  const samples = Int16Array.from({ length: rate * seconds }, (_, i) => {
    const t = i / rate;
    const swell = Math.sin((Math.PI * t) / seconds) * (0.7 + 0.3 * Math.sin(2 * Math.PI * 3 * t));
    return Math.sin(2 * Math.PI * 90 * t) * swell * 28000;
  });
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + samples.byteLength, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(rate, 24);
  head.writeUInt32LE(rate * 2, 28);
  head.writeUInt16LE(2, 32);
  head.writeUInt16LE(16, 34);
  head.write('data', 36);
  head.writeUInt32LE(samples.byteLength, 40);
  return Buffer.concat([head, Buffer.from(samples.buffer)]);
}

async function stakesAtNight() {
  const page = await open({ colorScheme: 'dark' });
  await openSample(page, 'skip');
  await page.getByRole('button', { name: 'Ticks' }).click();
  await addMarkers(page);
  const transfer = await page.evaluateHandle((base64) => {
    const made = new DataTransfer();
    const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
    made.items.add(new File([bytes], 'winch.wav'));
    return made;
  }, winchWav().toString('base64'));
  await type(page, 'Frame of the playhead', '0');
  await page.dispatchEvent('kz-root', 'drop', { dataTransfer: transfer });
  await page.locator('[data-row="skip/translate.x"]').getByText('place').click();
  await page.getByRole('tab', { name: 'Time' }).click();
  for (const frame of ['0', '144', '180', '276']) {
    await type(page, 'Frame of the playhead', frame);
    await page.keyboard.press('Shift+t');
  }
  await type(page, 'Stake of f 144 goes to', '120');
  await type(page, 'Frame of the playhead', '70');
  await shoot(page, 'stakes-night');
  await page.context().close();
}

async function nightDrag() {
  const page = await open({ colorScheme: 'dark' });
  await openSample(page, 'skip');
  await page.locator('[data-row="skip/translate.x"]').getByText('place').click();
  await page.keyboard.press('g');
  await type(page, 'Frame of the playhead', '120');
  const [from, to] = [await place(page, 180, 6.4), await place(page, 196, 5.2)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let i = 1; i <= 5; i++)
    await page.mouse.move(from.x + ((to.x - from.x) * i) / 5, from.y + ((to.y - from.y) * i) / 5);
  await page.waitForTimeout(1200);
  await page.screenshot({ path: `${folder}/bench-night-drag.png` });
  process.stdout.write('docs/screenshots/bench-night-drag.png\n');
  await page.context().close();
}

async function drivetrainOfTheWheel() {
  const page = await open();
  await openSample(page, 'brine-wheel');
  await type(page, 'Frame of the playhead', '30');
  await page.getByRole('link', { name: 'Drivetrain' }).click();
  await page.locator('kz-drivetrain .node.driver').last().click();
  await page.mouse.move(400, 600);
  await shoot(page, 'drivetrain');
  await page.context().close();
}

async function interlocksOfTheSluice() {
  const page = await open();
  await openSample(page, 'sluice');
  await type(page, 'Frame of the playhead', '96');
  await page.getByRole('button', { name: 'Ticks', exact: true }).click();
  await page.getByRole('button', { name: /^Tied/ }).click();
  await page.locator('[data-kind="thread"]').nth(1).click();
  await page.locator('kz-interlock-card').scrollIntoViewIfNeeded();
  await shoot(page, 'interlocks');
  await page.context().close();
}

async function constraintsOfTheCrane() {
  const page = await open();
  await openSample(page, 'jib-crane');
  await page.keyboard.press('Control+1');
  await type(page, 'Frame of the playhead', '122');
  await page.locator('[data-row="block"]').click();
  await page.getByRole('tab', { name: 'Links' }).click();
  await shoot(page, 'constraints');
  await page.context().close();
}

async function buildOfTheQuay() {
  const page = await open();
  await openSample(page, 'quay');
  await type(page, 'Frame of the playhead', '16');
  await page.locator('[data-row="float"]').click();
  await page.getByRole('button', { name: 'Lay them' }).scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: 'Lay them' }).click();
  await page.getByRole('heading', { name: 'Squash', exact: true }).scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: 'Make the copy' }).scrollIntoViewIfNeeded();
  await page.keyboard.press('f');
  await shoot(page, 'build');
  await page.context().close();
}

try {
  mkdirSync(folder, { recursive: true });
  await cardOf('brine-wheel', 60);
  await cardOf('skip', 96);
  await cardOf('quay', 9);
  await cardOf('jib-crane', 118);
  await cardOf('quay-crane', 76);
  await cardOf('mould-table', 60);
  await cardOf('boom-camera', 120);
  await cardOf('pump-house', 11);
  await cardOf('sluice', 108);
  await cardOf('rake-carriage', 54);
  await constraintsOfTheCrane();
  await interlocksOfTheSluice();
  await drivetrainOfTheWheel();
  await buildOfTheQuay();
  await viewsOfTheWheel();
  await viewsOfTheSkip();
  await ratesOfTheSkip();
  await manyKeysOfTheQuay();
  await treatmentsAtNight();
  await lanesOfTheBuoy();
  await twoHalves();
  await nightDrag();
  await stakesAtNight();
} finally {
  await browser.close();
  server.kill();
}
