/** Writes the sample projects into samples/, by scripts that use core's own edits. */
import { spawnSync } from 'node:child_process';
import { build } from 'esbuild';
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
  logLevel: 'warning',
});
process.exitCode = spawnSync(process.execPath, [outfile, `${root}samples`], { stdio: 'inherit' }).status ?? 1;
