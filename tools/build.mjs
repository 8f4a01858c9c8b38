/** Builds what `npm start` serves and `npx kaizen` runs: validator, command line, server, and (unless `--no-studio`) the studio. */
import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { generateValidator } from './schema.mjs';

export const root = fileURLToPath(new URL('..', import.meta.url));

/** How code for Node is bundled. Packages that were written for its older modules ask for `require` and `__dirname`. */
export const NODE_BUNDLE = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  absWorkingDir: root,
  logLevel: 'warning',
  loader: { '.wasm': 'binary' },
  banner: {
    js: "import{createRequire as kaizenRequire}from'node:module';const require=kaizenRequire(import.meta.url),__dirname='.';",
  },
};

export async function buildNode() {
  await generateValidator();
  mkdirSync(`${root}cli/dist`, { recursive: true });
  await build({ ...NODE_BUNDLE, entryPoints: ['cli/src/kaizen.ts'], outfile: 'cli/dist/kaizen.js' });
  await build({ ...NODE_BUNDLE, entryPoints: ['server/src/main.ts'], outfile: 'server/dist/main.js' });
}

/** The script that builds the studio. */
export const STUDIO_BUILD = { script: 'tools/build-studio.mjs', args: [] };

export function buildStudio() {
  const result = spawnSync(process.execPath, [STUDIO_BUILD.script], { cwd: root, stdio: 'inherit' });
  return result.status === 0;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  await buildNode();
  if (!process.argv.includes('--no-studio') && !buildStudio()) process.exitCode = 1;
}
