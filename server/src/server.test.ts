import { createServer, type Server } from 'node:http';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp } from './app';
import { listenOnFreePort } from './free-port';

const servers: Server[] = [];
afterEach(() => servers.splice(0).forEach((server) => server.close()));

async function start(wanted: number): Promise<string> {
  const studio = mkdtempSync(join(tmpdir(), 'studio-'));
  writeFileSync(join(studio, 'index.html'), '<title>Kaizen</title>');
  writeFileSync(join(studio, 'a.kaizen.json'), '{}');
  const server = createServer(createApp({ studio, samples: studio, schema: join(studio, 'a.kaizen.json') }));
  servers.push(server);
  return `http://127.0.0.1:${await listenOnFreePort(server, wanted)}`;
}

describe('the server', () => {
  it('serves the studio for its own addresses under a strict policy, and nothing made up', async () => {
    const base = await start(4391);
    const page = await fetch(`${base}/bench/skip`);
    expect(await page.text()).toContain('Kaizen');
    expect(page.headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(page.headers.get('content-security-policy')).not.toContain('unsafe-eval');
    expect((await fetch(`${base}/missing.js`)).status).toBe(404);
    expect((await fetch(`${base}/samples/a.kaizen.json`)).status).toBe(200);
    expect(await (await fetch(`${base}/health`)).json()).toEqual({ ok: true });
  });

  it('takes the next free port', async () => {
    const first = await start(4397);
    const second = await start(4397);
    expect(second).not.toBe(first);
  });
});
