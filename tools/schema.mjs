/**
 * Writes the JSON Schema of a project and the tables of docs/kinds.md from the descriptions in core, and the plain validator
 * compiled from the schema: a strict Content-Security-Policy forbids `new Function` in the page.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { format, resolveConfig } from 'prettier';
import Ajv from 'ajv';
import standaloneCode from 'ajv/dist/standalone/index.js';

const folder = fileURLToPath(new URL('../core/src/file/', import.meta.url));
const docs = fileURLToPath(new URL('../docs/', import.meta.url));

/** Written only where it changed: what is built from core is older than its newest file. */
async function writeFormatted(path, text, parser) {
  const formatted = await format(text, { ...(await resolveConfig(path)), parser });
  if (!existsSync(path) || readFileSync(path, 'utf8') !== formatted) writeFileSync(path, formatted);
}

async function described() {
  const bundle = await build({
    stdin: {
      contents: "export { projectSchema } from './schema'; export { kindTables } from './kind-tables';",
      resolveDir: folder,
    },
    bundle: true,
    format: 'esm',
    target: 'es2022',
    write: false,
  });
  const module = `data:text/javascript;base64,${Buffer.from(bundle.outputFiles[0].text).toString('base64')}`;
  return import(module);
}

export async function generateValidator() {
  const { projectSchema, kindTables } = await described();
  const schema = projectSchema();
  await writeFormatted(folder + 'kaizen.schema.json', JSON.stringify(schema), 'json');
  await writeFormatted(docs + 'kinds.md', kindTables(), 'markdown');
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
