/** Writes the sample projects into samples/, by scripts that use core's own edits. */
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { build } from 'esbuild';
import { format, resolveConfig } from 'prettier';
import { root } from './build.mjs';
import { generateValidator } from './schema.mjs';

await generateValidator();
const outfile = `${root}samples/dist/write-samples.mjs`;
await build({
  entryPoints: [`${root}samples/src/write-samples.ts`],
  bundle: true,
  platform: 'node',
  format: 'esm',
  outfile,
  loader: { '.wasm': 'binary' },
  logLevel: 'warning',
});
const { status } = spawnSync(process.execPath, [outfile, `${root}samples`], { stdio: 'inherit' });
const index = `${root}samples/index.json`;
writeFileSync(
  index,
  await format(readFileSync(index, 'utf8'), { ...(await resolveConfig(index)), parser: 'json' }),
);
process.exitCode = status ?? 1;
