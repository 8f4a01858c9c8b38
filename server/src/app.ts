import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/**
 * What a page may load, from where, and who may show it in a frame: nobody. Styles only by the nonce of this answer. WebAssembly may
 * be compiled, which the engine does and what unpacks meshes; no script may be made of text.
 */
function policy(nonce?: string): string {
  return [
    "default-src 'self'",
    "script-src 'self' 'wasm-unsafe-eval'",
    `style-src 'self'${nonce === undefined ? '' : ` 'nonce-${nonce}'`}`,
    "img-src 'self' data: blob:",
    "worker-src 'self' blob:",
    "connect-src 'self' blob: data:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join('; ');
}

export interface ServedFolders {
  /** The built studio. */
  readonly studio: string;
  /** Sample projects, served under /samples. */
  readonly samples: string;
  /** The published JSON Schema, served as /kaizen.schema.json. */
  readonly schema: string;
}

/** Names under which this machine itself is asked. Another name that leads here is somebody else's page trying to read it. */
const OWN_NAMES: ReadonlySet<string> = new Set(['localhost', '127.0.0.1', '[::1]']);

const refuseOtherHosts: RequestHandler = (request, response, next) => {
  const name = (request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase();
  if (OWN_NAMES.has(name)) next();
  else response.status(421).type('text').send('Kaizen answers on this machine only: open it at localhost.\n');
};

/** A file whose name has the hash of its contents never changes. */
const HASHED = /-[A-Z0-9]{8}\.(js|css|woff2?)$/;
const FOR_EVER = 'public, max-age=31536000, immutable';

/** Addresses of the studio's own screens; a project's id may have dots. */
const SCREENS = ['/', '/projects', '/bench/:project', '/drivetrain/:project', '/hand-over/:project'];

/** What is served of the samples: projects, their pictures, their list. No sources, nothing of their build. */
const SAMPLE = /^\/([a-z0-9-]+\.kaizen\.json|[a-z0-9-]+\.png|index\.json)$/;

/**
 * Serves the studio under a strict Content-Security-Policy, the samples, the schema and a health answer. Nothing is packed: it is
 * sent within one machine, where packing costs both ends more than it saves.
 */
export function createApp(folders: ServedFolders): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(refuseOtherHosts);
  app.use((_request, response, next) => {
    response.set({
      'Content-Security-Policy': policy(),
      'X-Content-Type-Options': 'nosniff',
      'Referrer-Policy': 'no-referrer',
      'Cross-Origin-Opener-Policy': 'same-origin',
    });
    next();
  });
  app.get('/health', (_request, response) => {
    response.json({ ok: true });
  });
  app.get('/kaizen.schema.json', (_request, response) => {
    response.sendFile(folders.schema);
  });
  app.use('/samples', (request, response, next) => {
    if (SAMPLE.test(request.path)) next();
    else response.sendStatus(404);
  });
  app.use('/samples', express.static(folders.samples, { index: false }));
  app.get(SCREENS, sendPage(join(folders.studio, 'index.html')));
  app.use(
    express.static(folders.studio, {
      index: false,
      setHeaders: (response, path) => {
        response.setHeader('Cache-Control', HASHED.test(path) ? FOR_EVER : 'no-cache');
      },
    }),
  );
  app.get('/{*path}', (request, response, next) => {
    if (/\.[a-z0-9]+$/i.test(request.path)) next();
    else sendPage(join(folders.studio, 'index.html'))(request, response, next);
  });
  app.use((_request, response) => {
    response.status(404).type('text').send('There is nothing at this address.\n');
  });
  app.use(tellFailure);
  return app;
}

/** The studio's one page, with a nonce of its own that Angular gives to the styles it puts in. */
function sendPage(file: string): RequestHandler {
  return (_request, response) => {
    const nonce = randomBytes(16).toString('base64');
    const page = readFileSync(file, 'utf8').replace('<kz-root', `<kz-root ngCspNonce="${nonce}"`);
    response.set({ 'Content-Security-Policy': policy(nonce), 'Cache-Control': 'no-store' });
    response.type('html').send(page);
  };
}

/** An address that is no address, or a file that can't be read: one plain line, never a stack trace. */
const tellFailure: ErrorRequestHandler = (error: { status?: number }, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const bad = error.status === 400 || error instanceof URIError;
  response
    .status(bad ? 400 : (error.status ?? 500))
    .type('text')
    .send(bad ? 'This is no address.\n' : 'This could not be read here; npm run build makes it anew.\n');
};
