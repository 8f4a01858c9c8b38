/** Builds the studio, and has browsers compile the scripts of the Bench whole. */
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const dist = `${root}studio/dist`;

/**
 * Browsers compile a function when it is first called: while a project opens and at the first choices on the Bench, which then take
 * longer. This line at the top of a script (explicit compile hints, Chromium) has them compile it whole, off the page's thread, when it
 * is fetched, which for the Bench is ahead of time. Others take it as a comment.
 */
const HINT = '//# allFunctionsCalledOnLoad\n';

function hint() {
  const texts = new Map();
  for (const name of readdirSync(dist))
    if (name.endsWith('.js')) texts.set(name, readFileSync(`${dist}/${name}`, 'utf8'));
  const withMark = (mark) => [...texts.keys()].filter((name) => texts.get(name).includes(mark));
  const html = readFileSync(`${dist}/index.html`, 'utf8');
  const named = [...html.matchAll(/(?:src|href)="([^"]+\.js)"/g)].map(([, name]) => name);
  // What the first page fetches is to be there soon, and runs once.
  const first = withImports([...named, ...withMark('"kz-projects"')], texts);
  const bench = withImports(withMark('"kz-bench"'), texts).filter((name) => !first.includes(name));
  if (bench.length === 0) throw new Error('no script of the Bench is among those that were built');
  for (const name of bench) writeFileSync(`${dist}/${name}`, HINT + texts.get(name));
}

/** Some scripts with all that they import from the start. */
function withImports(names, texts) {
  const all = new Set();
  const waiting = [...names];
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    if (all.has(name)) continue;
    all.add(name);
    for (const [, other] of texts.get(name).matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/g))
      waiting.push(other);
  }
  return [...all];
}

const ng = spawnSync(process.execPath, ['node_modules/@angular/cli/bin/ng.js', 'build', 'studio'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, NG_CLI_ANALYTICS: 'false', CI: 'true' },
});
if (ng.status === 0) hint();
else process.exitCode = 1;
