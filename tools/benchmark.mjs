/** `npm run benchmark`: bundles the measurements and runs them, those on a canvas in a page; writes docs/benchmarks.md. */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { buildNode, buildStudio, root } from './build.mjs';

await buildNode();
if (!existsSync(`${root}studio/dist/index.html`) && !buildStudio()) process.exit(1);
const bundle = (name, platform) =>
  build({
    entryPoints: [`${root}benchmark/src/${name}.ts`],
    bundle: true,
    platform,
    format: 'esm',
    target: platform === 'node' ? 'node20' : 'es2022',
    outfile: `${root}benchmark/dist/${name}.mjs`,
    logLevel: 'warning',
  });
await bundle('main', 'node');
await bundle('in-page', 'browser');
const inPage = JSON.stringify(await measureInPage(`${root}benchmark/dist/in-page.mjs`));
const ran = spawnSync(process.execPath, [`${root}benchmark/dist/main.mjs`, root, inPage], {
  stdio: 'inherit',
});
process.exitCode = ran.status ?? 1;

async function measureInPage(path) {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    chromiumSandbox: false,
    args: ['--disable-gpu', '--no-first-run', '--disable-background-networking'],
  });
  try {
    const page = await browser.newPage();
    await page.setContent('<!doctype html><body></body>');
    await page.addScriptTag({ path, type: 'module' });
    const handle = await page.waitForFunction(() => globalThis.measured, null, { timeout: 120_000 });
    return await handle.jsonValue();
  } finally {
    await browser.close();
  }
}
