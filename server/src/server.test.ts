import { createServer, get, type IncomingMessage, type Server } from 'node:http';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp } from './app';
import { listenOnFreePort } from './free-port';

const servers: Server[] = [];
afterEach(() => servers.splice(0).forEach((server) => server.close()));

async function start(wanted: number): Promise<string> {
  const studio = mkdtempSync(join(tmpdir(), 'studio-'));
  const files = {
    'index.html': '<title>Kaizen</title><kz-root></kz-root>',
    'main-ABCD1234.js': '',
    'worker-ABCD1234.js': '',
    'kaizen.svg': '<svg/>',
    'a.kaizen.json': '{}',
    'index.json': '[]',
    'tsconfig.json': '{}',
  };
  for (const [name, text] of Object.entries(files)) writeFileSync(join(studio, name), text);
  const server = createServer(createApp({ studio, samples: studio, schema: join(studio, 'a.kaizen.json') }));
  servers.push(server);
  return `http://127.0.0.1:${await listenOnFreePort(server, wanted)}`;
}

describe('the server', () => {
  it('serves the studio for its own addresses under a strict policy, and nothing made up', async () => {
    const base = await start(4391);
    const page = await fetch(`${base}/bench/skip`);
    expect(await page.text()).toContain('Kaizen');
    const policy = page.headers.get('content-security-policy')!;
    expect(policy).toContain("default-src 'self'");
    expect(policy).not.toMatch(/'unsafe-(eval|inline)'/);
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval';");
    for (const rule of ["frame-ancestors 'none'", "base-uri 'self'", "form-action 'none'"])
      expect(policy).toContain(rule);
    expect((await fetch(`${base}/missing.js`)).status).toBe(404);
    expect((await fetch(`${base}/samples/a.kaizen.json`)).status).toBe(200);
    expect(await (await fetch(`${base}/health`)).json()).toEqual({ ok: true });
  });

  it('gives each page a nonce of its own for its styles', async () => {
    const base = await start(4401);
    const nonces = await Promise.all(
      [1, 2].map(async () => {
        const page = await fetch(base);
        const nonce = /ngCspNonce="([^"]+)"/.exec(await page.text())?.[1];
        expect(page.headers.get('content-security-policy')).toContain(`style-src 'self' 'nonce-${nonce}'`);
        expect(page.headers.get('cache-control')).toBe('no-store');
        return nonce;
      }),
    );
    expect(new Set(nonces).size).toBe(2);
  });

  it('keeps files with a hash in their name for ever, others not', async () => {
    const base = await start(4411);
    expect((await fetch(`${base}/main-ABCD1234.js`)).headers.get('cache-control')).toMatch(/immutable/);
    expect((await fetch(`${base}/kaizen.svg`)).headers.get('cache-control')).toBe('no-cache');
  });

  it('opens a project whose id has a dot, and serves no build files among the samples', async () => {
    const base = await start(4421);
    expect((await fetch(`${base}/bench/skip.v2.json`)).headers.get('content-type')).toMatch(/html/);
    expect((await fetch(`${base}/samples/index.json`)).status).toBe(200);
    for (const path of ['tsconfig.json', 'src/skip.ts', '../package.json'])
      expect((await fetch(`${base}/samples/${path}`)).status).toBe(404);
  });

  it('answers an address that is none with one line', async () => {
    const base = await start(4431);
    for (const path of ['/%zz', '/bench/%zz', '/samples/%zz', '/a%00.js']) {
      const answer = await fetch(base + path);
      expect([400, 404]).toContain(answer.status);
      expect(await answer.text()).toMatch(/^[^\n]+\n?$/);
    }
  });

  it('refuses to be asked by another name', async () => {
    const base = await start(4441);
    const ask = (host: string) =>
      new Promise<IncomingMessage>((done) => get(base, { headers: { host } }, done));
    expect((await ask('salt.example:4441')).statusCode).toBe(421);
    expect((await ask('localhost:1234')).statusCode).toBe(200);
  });

  it('takes the next free port', async () => {
    const first = await start(4397);
    const second = await start(4397);
    expect(second).not.toBe(first);
  });
});
