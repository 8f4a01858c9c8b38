// the state of the Bench is a store of NgRx, which asks for it
import '@angular/compiler';
import { readFileSync, writeFileSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';
import { join } from 'node:path';
import { editOneKey } from './edit-one-key';
import { engine } from './engine';
import { firstLoad } from './first-load';
import type { Result } from './measure';
import { runFrame } from './run-frame';
import { solveBezier } from './solve-bezier';
import { tickRows } from './tick-rows';

/** Prints the measurements as a table and keeps them in docs/benchmarks.md. Exit 1 where one is not as it has to be. */
const root = process.argv[2] ?? '.';
/** What was measured in a page before. */
const inPage = JSON.parse(process.argv[3] ?? '[]') as Result[];
const results: Result[] = [
  ...(await editOneKey()),
  ...runFrame(),
  ...engine(),
  ...solveBezier(),
  ...tickRows(),
  ...inPage,
  ...firstLoad(join(root, 'studio', 'dist')),
];

const rows = results.map(
  ({ what, measured, wanted, good }) => `| ${what} | ${measured} | ${wanted} | ${good ? 'yes' : 'NO'} |`,
);
const table = ['| what | measured | wanted | so it is |', '| --- | --- | --- | --- |', ...rows].join('\n');
const chip = cpus()[0]?.model.trim() ?? 'an unknown processor';
const three = (
  JSON.parse(readFileSync(join(root, 'node_modules/three/package.json'), 'utf8')) as { version: string }
).version;
const machine = `${chip}, ${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB, Node.js ${process.versions.node}, three.js ${three}`;
const page = `# Measurements

\`npm run benchmark\` writes this page. Everything is measured side by side with the thing it is compared to, turn by turn in one
run; what counts are the ratios. Medians of at least 15 rounds, of what opens in a page of fewer.

Measured on ${new Date().toISOString().slice(0, 10)}: ${machine}.

${table}
`;
writeFileSync(join(root, 'docs', 'benchmarks.md'), page);
process.stdout.write(`${table}\n`);
process.exitCode = results.every(({ good }) => good) ? 0 : 1;
