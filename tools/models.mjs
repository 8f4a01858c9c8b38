/**
 * `npm run models -- <folder>…`: brings every GLB and glTF below some folders, plays each beside three.js at 200 times, hands it over
 * and plays that, and has Khronos' validator look at it. Exit 1 where one is further off than 1e-4 m or has an error.
 */
import { build } from 'esbuild';
import { NODE_BUNDLE, root } from './build.mjs';

const outfile = `${root}benchmark/dist/foreign-models.mjs`;
await build({
  ...NODE_BUNDLE,
  entryPoints: [`${root}core/testing/foreign-models.ts`],
  outfile,
  // it looks for its own surroundings
  external: ['gltf-validator'],
});
const { checkModel, modelsBelow } = await import(outfile);
/** Metres. */
const MOST = 1e-4;
const counts = { good: 0, refused: 0, faulty: 0, bad: 0 };
for (const folder of process.argv.slice(2))
  for (const path of modelsBelow(folder)) {
    const said = await checked(path, folder);
    process.stdout.write(`${said}\n`);
  }
process.stdout.write(
  `${counts.good} good, ${counts.refused} refused, ${counts.faulty} with errors of their own, ${counts.bad} not good\n`,
);
process.exitCode = counts.bad > 0 ? 1 : 0;

async function checked(path, folder) {
  const { file, refused, nodes, brought, handedOver, errors, faults } = await checkModel(path, folder);
  if (refused !== null) {
    counts.refused++;
    return `refused   ${file}: ${refused}`;
  }
  const isGood = brought <= MOST && handedOver <= MOST && errors.length === 0;
  const word = isGood ? 'good' : faults.length > 0 ? 'faulty' : 'bad';
  counts[word]++;
  const off = `${nodes} nodes, brought within ${brought.toExponential(1)} m, handed over within ${handedOver.toExponential(1)} m`;
  return `${word.padEnd(9)} ${file}: ${[off, ...errors, ...(isGood ? [] : faults)].join('; ')}`;
}
