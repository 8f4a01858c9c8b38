/**
 * `npm test`: everything that has to hold, on a fresh machine too. Formatting, lint, types, unit tests, the build and the
 * tests in the browser; closes with one line `N passed, N failed`. `npm test -- unit` leaves the browser out.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { availableParallelism, constants, setPriority, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { installPackages, requireNode } from './install.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const reports = mkdtempSync(join(tmpdir(), 'kaizen-test-'));
const withBrowser = !process.argv.includes('unit');
let passed = 0;
let failed = 0;

function count(ok, much = 1) {
  if (ok) passed += much;
  else failed += much;
}

/** Runs a script; what it prints comes as it is printed, or in one piece at its end. `beside` others it gets what they leave of the processor. */
function run(name, script, args, { env = {}, atOnce = true, beside = false } = {}) {
  const began = Date.now();
  if (atOnce) process.stdout.write(`\n— ${name}\n`);
  return new Promise((done) => {
    const child = spawn(process.execPath, [script, ...args], {
      cwd: root,
      stdio: atOnce ? ['ignore', 'inherit', 'inherit'] : ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    if (beside) setPriority(child.pid, constants.priority.PRIORITY_LOW);
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (piece) => (said += piece));
    child.on('close', (code) => {
      const took = Math.round((Date.now() - began) / 1000);
      if (!atOnce) process.stdout.write(`\n— ${name}\n${said}`);
      process.stdout.write(`  ${name}: ${code === 0 ? 'good' : 'not good'}, ${took} s\n`);
      done(code === 0);
    });
  });
}

/** Runs checks side by side, as many as there are processors, the next as soon as one is done. */
async function runChecks(checks) {
  const waiting = [...checks];
  const lane = async () => {
    for (let check = waiting.shift(); check; check = waiting.shift()) {
      const ok = await run(check.name, check.script, check.args, { env: check.env, atOnce: false });
      count(ok);
      check.after?.(ok);
    }
  };
  await Promise.all(Array.from({ length: Math.max(1, availableParallelism()) }, lane));
}

function readReport(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

/** The browser for tests, which may have to be installed: that takes the network's time more than the processor's. */
function browserFound() {
  const script = join('tools', 'install.mjs');
  const child = spawn(process.execPath, [script, 'chromium'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  child.stdout.on('data', (piece) => (said += piece));
  return new Promise((done) =>
    child.on('close', (code) => done(code === 0 ? said.trim().split('\n').at(-1) : '')),
  );
}

requireNode();
installPackages();
const finding = withBrowser ? browserFound() : null;
const { buildNode, STUDIO_BUILD } = await import('./build.mjs');
await buildNode();

const bin = (name, file) => join('node_modules', name, file);
const sources = ['core', 'cli', 'server', 'studio'].map((name) => `${name}/src`);
/** ESLint takes a minute and more, and all else leaves some of two processors idle: it goes beside from the start. */
const linted = run('lint', bin('eslint', 'bin/eslint.js'), ['.', '--max-warnings', '0'], {
  atOnce: false,
  beside: true,
});
let built = false;
const checks = [
  { name: 'types', script: join('tools', 'types.mjs'), args: [] },
  {
    name: 'format',
    script: bin('prettier', 'bin/prettier.cjs'),
    args: ['--check', '--log-level', 'warn', '.'],
  },
  {
    name: 'import directions',
    script: bin('dependency-cruiser', 'bin/dependency-cruise.mjs'),
    args: ['--config', '.dependency-cruiser.cjs', ...sources],
  },
];
if (withBrowser) checks.unshift({ name: 'build', ...STUDIO_BUILD, after: (ok) => (built = ok) });
await runChecks(checks);

const jestReport = join(reports, 'jest.json');
const jestRan = await run(
  'unit tests',
  bin('jest', 'bin/jest.js'),
  ['--json', `--outputFile=${jestReport}`, '--silent'],
  { env: { NODE_OPTIONS: '--experimental-vm-modules --no-warnings' } },
);
const jest = readReport(jestReport);
passed += jest?.numPassedTests ?? 0;
failed += jest ? jest.numFailedTests + jest.numRuntimeErrorTestSuites : 1;
if (!jestRan && jest?.success) failed += 1;

const chromium = (await finding) ?? '';
if (withBrowser && chromium === '') count(false);
if (built && chromium !== '') {
  const report = join(reports, 'playwright.json');
  const ran = await run(
    'tests in the browser',
    bin('@playwright/test', 'cli.js'),
    ['test', '--config', 'e2e/playwright.config.ts', '--retries', '1'],
    { env: { CHROMIUM: chromium, PLAYWRIGHT_JSON_OUTPUT_NAME: report } },
  );
  const stats = readReport(report)?.stats;
  passed += (stats?.expected ?? 0) + (stats?.flaky ?? 0);
  if (stats?.flaky > 0)
    process.stdout.write(
      `  ${stats.flaky} of them good only at the second try: look at each, it is a fault of the test or the studio\n`,
    );
  failed += stats ? stats.unexpected : 1;
  if (!ran && stats?.unexpected === 0) failed += 1;
}
count(await linted);

process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 ? 0 : 1;
