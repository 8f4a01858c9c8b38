/**
 * `npm run kills [count]`: kills a browser of its own at random moments while it edits without a pause, starts it again on the same
 * profile and looks at what was kept. Nothing older than a second may be lost, and the project must open. 200 kills take about
 * 20 minutes; it is no part of `npm test`. The studio must be built.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { root } from './build.mjs';
import { findChromium, installPackages } from './install.mjs';

const COUNT = Number(process.argv[2] ?? 200);
const PORT = 4296;
/** What is younger than this at the kill may be lost, in milliseconds; the clocks of two processes differ by a little. */
const MAY_BE_LOST = 1000;
/** The first value that is typed, far above the one that the sample has. */
const FIRST = 1000;
const FLAGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--enable-unsafe-swiftshader',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--remote-debugging-port=0',
];

installPackages();
const server = spawn(process.execPath, [`${root}server/dist/main.js`], {
  env: { ...process.env, PORT: String(PORT) },
  stdio: 'ignore',
});
process.on('exit', () => server.kill());

/** A browser as a group of processes, so that all of it dies at once. */
async function start(profile) {
  const child = spawn(
    findChromium({ withWindows: true }),
    [...FLAGS, `--user-data-dir=${profile}`, 'about:blank'],
    {
      detached: true,
      stdio: 'ignore',
    },
  );
  const address = join(profile, 'DevToolsActivePort');
  for (let tries = 0; tries < 200; tries++) {
    try {
      const [port, path] = readFileSync(address, 'utf8').split('\n');
      const browser = await chromium.connectOverCDP(`ws://127.0.0.1:${port}${path}`);
      return {
        browser,
        page: browser.contexts()[0].pages()[0],
        kill: () => process.kill(-child.pid, 'SIGKILL'),
      };
    } catch {
      await new Promise((later) => setTimeout(later, 50));
    }
  }
  throw new Error('the browser did not start');
}

const field = (page) => page.getByRole('textbox', { name: 'Rest Place X', exact: true });

async function openPump(page, url) {
  await page.goto(url);
  if (!url.includes('/bench'))
    await page.getByRole('button', { name: 'Open the sample Brine wheel' }).click();
  await page.locator('[data-row="pump"]').click();
  await field(page).waitFor();
}

/** The value that a browser of its own shows in a project; where its picture stands still, as it rarely does, the next one is asked. */
async function whatIsKept(profile, url) {
  for (let tries = 1; ; tries++) {
    const browser = await start(profile);
    try {
      await openPump(browser.page, url);
      return Number(await field(browser.page).inputValue());
    } catch (error) {
      if (tries === 3) throw error;
      console.log(`opened again: ${error.message.split('\n')[0]}`);
    } finally {
      browser.kill();
      makeFree(profile);
    }
  }
}

/** Takes away what a killed browser leaves behind to say that it runs. */
function makeFree(profile) {
  for (const left of ['DevToolsActivePort', 'SingletonLock', 'SingletonCookie', 'SingletonSocket'])
    rmSync(join(profile, left), { force: true });
}

/** Edits until a random moment, dies, and tells how old the newest lost edit was (0: none was lost). */
async function killOnce(round) {
  const profile = mkdtempSync(join(tmpdir(), 'kaizen-kill-'));
  try {
    const first = await start(profile);
    await openPump(first.page, `http://localhost:${PORT}/`);
    const edits = [];
    const dies = Date.now() + 300 + Math.random() * 3500;
    const url = first.page.url();
    let dead = false;
    const timer = setTimeout(() => {
      dead = true;
      first.kill();
    }, dies - Date.now());
    try {
      while (!dead) {
        const value = FIRST + edits.length;
        await field(first.page).fill(String(value), { timeout: 5000 });
        await field(first.page).press('Enter', { timeout: 5000 });
        edits.push({ at: Date.now(), value });
      }
    } catch (error) {
      if (!dead) throw error;
    }
    clearTimeout(timer);
    const killed = dies;
    makeFree(profile);
    const kept = await whatIsKept(profile, url);
    const firstLost = edits.find(({ value }) => value > kept);
    const due = edits.filter(({ at }) => at < killed - MAY_BE_LOST).at(-1)?.value ?? 0;
    return {
      round,
      edits: edits.length,
      kept,
      lostAge: firstLost ? killed - firstLost.at : 0,
      good: kept >= due,
    };
  } finally {
    rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
  }
}

let bad = 0;
let oldest = 0;
let edits = 0;
for (let round = 1; round <= COUNT; round++) {
  const result = await killOnce(round);
  oldest = Math.max(oldest, result.lostAge);
  edits += result.edits;
  if (!result.good) bad += 1;
  if (!result.good || round % 20 === 0)
    console.log(
      `${round}: ${JSON.stringify(result)}; so far ${bad} bad, oldest lost ${Math.round(oldest)} ms`,
    );
}
console.log(
  `${COUNT} kills in ${edits} edits: ${bad} lost more than the last second; the oldest edit that was lost was ${Math.round(oldest)} ms old`,
);
process.exit(bad === 0 ? 0 : 1);
