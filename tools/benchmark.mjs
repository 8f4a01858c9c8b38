/** `npm run benchmark`: bundles the measurements and runs them; writes docs/benchmarks.md. */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { build } from 'esbuild';
import { buildNode, buildStudio, root } from './build.mjs';

await buildNode();
if (!existsSync(`${root}studio/dist/index.html`) && !buildStudio()) process.exit(1);
const outfile = `${root}benchmark/dist/main.mjs`;
await build({
  entryPoints: [`${root}benchmark/src/main.ts`],
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  outfile,
  logLevel: 'warning',
});
const ran = spawnSync(process.execPath, [outfile, root], { stdio: 'inherit' });
process.exitCode = ran.status ?? 1;
