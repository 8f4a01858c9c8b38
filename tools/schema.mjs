/**
 * Writes the JSON Schema of a project from the descriptions in core, and the plain validator compiled from it: a strict
 * Content-Security-Policy forbids `new Function` in the page.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { format, resolveConfig } from 'prettier';
import Ajv from 'ajv';
import standaloneCode from 'ajv/dist/standalone/index.js';

const folder = fileURLToPath(new URL('../core/src/file/', import.meta.url));

async function describedSchema() {
  const bundle = await build({
    entryPoints: [folder + 'schema.ts'],
    bundle: true,
    format: 'esm',
    target: 'es2022',
    write: false,
  });
  const module = `data:text/javascript;base64,${Buffer.from(bundle.outputFiles[0].text).toString('base64')}`;
  return (await import(module)).projectSchema();
}

export async function generateValidator() {
  const schema = await describedSchema();
  const path = folder + 'kaizen.schema.json';
  const text = await format(JSON.stringify(schema), { ...(await resolveConfig(path)), parser: 'json' });
  // Written only where it changed: what is built from core is older than its newest file.
  if (!existsSync(path) || readFileSync(path, 'utf8') !== text) writeFileSync(path, text);
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
