/** `npm start`: installs and builds what is missing or out of date, serves the studio with its samples, prints the address. */
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { isStale } from './freshness.mjs';
import { installPackages, requireNode, stop } from './install.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const at = (...names) => join(root, ...names);

requireNode();
installPackages();

const shared = [at('core', 'src'), at('package-lock.json'), at('tools', 'build.mjs')];
const nodeIsStale = isStale(at('server', 'dist', 'main.js'), [
  ...shared,
  at('server', 'src'),
  at('cli', 'src'),
]);
const studioIsStale = isStale(at('studio', 'dist', 'index.html'), [
  ...shared,
  at('studio', 'src'),
  at('studio', 'public'),
  at('angular.json'),
  at('tools', 'build-studio.mjs'),
]);
if (nodeIsStale || studioIsStale) {
  process.stdout.write('Building Kaizen …\n');
  const { buildNode, buildStudio } = await import('./build.mjs');
  await buildNode();
  if (studioIsStale && !buildStudio())
    stop('The studio could not be built; the message above says where. npm run build tries again.');
}
await import('../server/dist/main.js');
