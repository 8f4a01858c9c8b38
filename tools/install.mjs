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

/** The browser for tests: $CHROMIUM, Debian's, or newly installed where that can be done without a question. */
export function findChromium() {
  const wanted = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(wanted)) return wanted;
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    process.stdout.write('Installing Chromium …\n');
    if (run('apt-get', ['update', '-qq']) && run('apt-get', ['install', '-y', '-qq', 'chromium']))
      return '/usr/bin/chromium';
  }
  return stop(
    'The tests need Chromium: install it (Debian: apt-get install chromium) or set CHROMIUM=/path/to/chromium.',
  );
}
