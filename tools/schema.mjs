/** Compiles core/src/project/kaizen.schema.json to a plain validator: a strict Content-Security-Policy forbids `new Function`. */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import Ajv from 'ajv';
import standaloneCode from 'ajv/dist/standalone/index.js';

const folder = fileURLToPath(new URL('../core/src/project/', import.meta.url));

export async function generateValidator() {
  const schema = JSON.parse(readFileSync(folder + 'kaizen.schema.json', 'utf8'));
  const ajv = new Ajv.default({
    allErrors: true,
    discriminator: true,
    strict: false,
    code: { source: true, esm: true },
  });
  const source = standaloneCode.default(ajv, ajv.compile(schema));
  const bundle = await build({
    stdin: { contents: source, resolveDir: folder },
    bundle: true,
    format: 'esm',
    target: 'es2022',
    write: false,
  });
  writeFileSync(folder + 'validate.generated.js', bundle.outputFiles[0].text);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await generateValidator();
