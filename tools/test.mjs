/**
 * `npm test`: everything that has to hold, on a fresh machine too. Formatting, lint, types, unit tests, the build and the
 * tests in the browser; closes with one line `N passed, N failed`. `npm test -- unit` leaves the browser out.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { findChromium, installPackages, requireNode } from './install.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const reports = mkdtempSync(join(tmpdir(), 'kaizen-test-'));
const withBrowser = !process.argv.includes('unit');
let passed = 0;
let failed = 0;

function count(ok, much = 1) {
  if (ok) passed += much;
  else failed += much;
}

function run(name, script, args, env = {}) {
  process.stdout.write(`\n— ${name}\n`);
  const began = Date.now();
  const result = spawnSync(process.execPath, [script, ...args], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  process.stdout.write(
    `  ${name}: ${result.status === 0 ? 'good' : 'not good'}, ${Math.round((Date.now() - began) / 1000)} s\n`,
  );
  return result.status === 0;
}

function readReport(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

requireNode();
installPackages();
const chromium = withBrowser ? findChromium() : '';
const { buildNode, buildStudio } = await import('./build.mjs');
await buildNode();

const bin = (name, file) => join('node_modules', name, file);
count(run('format', bin('prettier', 'bin/prettier.cjs'), ['--check', '--log-level', 'warn', '.']));
count(run('lint', bin('eslint', 'bin/eslint.js'), ['.', '--max-warnings', '0']));
count(
  run('import directions', bin('dependency-cruiser', 'bin/dependency-cruise.mjs'), [
    '--config',
    '.dependency-cruiser.cjs',
    ...['core', 'cli', 'server', 'studio'].map((name) => `${name}/src`),
  ]),
);
for (const project of [
  'core',
  'core/tsconfig.lib.json',
  'cli',
  'server',
  'samples',
  'studio',
  'e2e',
  'benchmark',
]) {
  count(run(`types of ${project}`, bin('typescript', 'bin/tsc'), ['--noEmit', '-p', project]));
}

const jestReport = join(reports, 'jest.json');
const jestRan = run(
  'unit tests',
  bin('jest', 'bin/jest.js'),
  ['--json', `--outputFile=${jestReport}`, '--silent'],
  {
    NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
  },
);
const jest = readReport(jestReport);
passed += jest?.numPassedTests ?? 0;
failed += jest ? jest.numFailedTests + jest.numRuntimeErrorTestSuites : 1;
if (!jestRan && jest?.success) failed += 1;

if (withBrowser) {
  const built = buildStudio();
  count(built);
  if (built) {
    const report = join(reports, 'playwright.json');
    const ran = run(
      'tests in the browser',
      bin('@playwright/test', 'cli.js'),
      ['test', '--config', 'e2e/playwright.config.ts'],
      {
        CHROMIUM: chromium,
        PLAYWRIGHT_JSON_OUTPUT_NAME: report,
      },
    );
    const stats = readReport(report)?.stats;
    passed += (stats?.expected ?? 0) + (stats?.flaky ?? 0);
    failed += stats ? stats.unexpected : 1;
    if (!ran && stats?.unexpected === 0) failed += 1;
  }
}

process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 ? 0 : 1;
