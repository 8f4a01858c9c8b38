import { createServer } from 'node:http';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createApp } from './app';
import { listenOnFreePort } from './free-port';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
const app = createApp({
  studio: join(root, 'studio', 'dist'),
  samples: join(root, 'samples'),
  schema: join(root, 'core', 'src', 'file', 'kaizen.schema.json'),
});

const wanted = Number(process.env['PORT'] ?? 4280);
try {
  const port = await listenOnFreePort(createServer(app), wanted);
  process.stdout.write(`Kaizen is open at http://localhost:${port}\n`);
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
}
