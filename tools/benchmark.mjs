/** `npm run benchmark`: bundles the measurements and runs them, those on a canvas in a page; writes docs/benchmarks.md. */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { bigProject, measureStudio } from './benchmark-studio.mjs';
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
    loader: { '.wasm': 'binary' },
    // Angular's checks for developers are not in what a user has.
    define: { ngDevMode: 'false' },
    // what unpacks meshes asks for them under Node only
    external: platform === 'browser' ? ['fs', 'path', 'node:fs', 'node:path'] : [],
    logLevel: 'warning',
  });
await bundle('main', 'node');
await bundle('in-page', 'browser');
await bundle('validator', 'browser');
await bundle('model-upload', 'browser');
const [validator, upload] = ['validator', 'model-upload'].map((name) =>
  readFileSync(`${root}benchmark/dist/${name}.mjs`, 'utf8'),
);
const inPage = JSON.stringify(await measureInPages(`${root}benchmark/dist/in-page.mjs`));
const ran = spawnSync(process.execPath, [`${root}benchmark/dist/main.mjs`, root, inPage], {
  stdio: 'inherit',
});
process.exitCode = ran.status ?? 1;

async function measureInPages(path) {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    chromiumSandbox: false,
    args: [
      '--disable-gpu',
      '--enable-unsafe-swiftshader',
      '--no-first-run',
      '--disable-background-networking',
    ],
  });
  try {
    const page = await browser.newPage();
    await page.setContent('<!doctype html><body></body>');
    await page.addScriptTag({ path, type: 'module' });
    const handle = await page.waitForFunction(() => globalThis.measured, null, { timeout: 240_000 });
    const measured = await handle.jsonValue();
    await page.close();
    return [...measured, ...sampleRates(), ...(await measureStudio(browser, { validator, upload }))];
  } finally {
    await browser.close();
  }
}

/** `kaizen sample --rates` against `kaizen sample`, on a project of 600 curves. */
function sampleRates() {
  const file = `${root}benchmark/dist/rates.kaizen.json`;
  writeFileSync(file, JSON.stringify(bigProject(100)));
  const times = [[], ['--rates']].map((more) => {
    const runs = Array.from({ length: 5 }, () => {
      const began = performance.now();
      const args = ['cli/dist/kaizen.js', 'sample', file, '--frames', '0:2400', ...more];
      const ran = spawnSync(process.execPath, args, { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
      if (ran.status !== 0) throw new Error('kaizen sample failed');
      return performance.now() - began;
    });
    return runs.sort((a, b) => a - b)[2];
  });
  const [plain, rates] = times;
  return [
    {
      what: `kaizen sample --rates on 600 curves over 2,401 frames (${(rates / 1000).toFixed(2)} s), against sample without (${(plain / 1000).toFixed(2)} s)`,
      measured: `${(rates / plain).toFixed(2)} times as long`,
      wanted: 'at most 5',
      good: rates / plain <= 5,
    },
  ];
}
