/** Puts in place what is not there yet: packages from the registry, and for tests Debian's Chromium. */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { isStale } from './freshness.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const LEAST_NODE = [20, 19];

/** Stops with one sentence on what to do. */
export function stop(sentence) {
  process.stderr.write(`${sentence}\n`);
  process.exit(1);
}

function run(command, args) {
  return spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] }).status === 0;
}

export function requireNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major > LEAST_NODE[0] || (major === LEAST_NODE[0] && minor >= LEAST_NODE[1])) return;
  stop(
    `Kaizen needs Node.js ${LEAST_NODE.join('.')} or newer, and this is ${process.versions.node}; install a newer one from your system's packages.`,
  );
}

export function installPackages() {
  const installed = join(root, 'node_modules', '.package-lock.json');
  if (!isStale(installed, [join(root, 'package-lock.json')])) return;
  process.stdout.write('Installing packages …\n');
  if (!run('npm', ['ci', '--no-audit', '--no-fund'])) {
    stop(
      'The packages could not be installed; look at npm’s message above, and check that the npm registry can be reached.',
    );
  }
}

/** What has Debian's package server answer soon or not at all. */
const APT = ['-qq', '-o', 'Acquire::Retries=0', '-o', 'Acquire::http::Timeout=30'];

/**
 * The browser for tests: $CHROMIUM, or Debian's, newly installed where that can be done without a question. The one that can't show
 * windows is the better one: it starts a page in half the time. `withWindows`: the one that users have.
 */
export function findChromium({ withWindows = false } = {}) {
  const { CHROMIUM } = process.env;
  if (CHROMIUM && existsSync(CHROMIUM)) return CHROMIUM;
  const names = withWindows ? ['chromium'] : ['chromium-headless-shell', 'chromium'];
  const path = (name) => `/usr/bin/${name}`;
  const isThere = (name) => existsSync(path(name));
  const canInstall = process.getuid?.() === 0 && existsSync('/usr/bin/apt-get');
  if (canInstall && !isThere(names[0])) {
    process.stdout.write('Installing Chromium …\n');
    run('apt-get', [...APT, 'update']);
    names.find((name) => isThere(name) || run('apt-get', [...APT, 'install', '-y', name]));
  }
  const found = names.find(isThere);
  if (found) return path(found);
  return stop(
    'The tests need Chromium: install it (Debian: apt-get install chromium) or set CHROMIUM=/path/to/chromium.',
  );
}

/** `node tools/install.mjs chromium` says last where the browser for tests is. */
if (process.argv[1] === fileURLToPath(import.meta.url) && process.argv[2] === 'chromium')
  process.stdout.write(`${findChromium()}\n`);
