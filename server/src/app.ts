import compression from 'compression';
import express, { type Express } from 'express';
import { existsSync } from 'node:fs';
import { join } from 'node:path';

const POLICY = [
  "default-src 'self'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "worker-src 'self' blob:",
  "connect-src 'self' blob: data:",
  "object-src 'none'",
].join('; ');

export interface ServedFolders {
  /** The built studio. */
  readonly studio: string;
  /** Sample projects, served under /samples. */
  readonly samples: string;
  /** The published JSON Schema, served as /kaizen.schema.json. */
  readonly schema: string;
}

/** Serves the studio under a strict Content-Security-Policy, the samples, the schema and a health answer. */
export function createApp(folders: ServedFolders): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(compression());
  app.use((_request, response, next) => {
    response.set({
      'Content-Security-Policy': POLICY,
      'X-Content-Type-Options': 'nosniff',
      'Referrer-Policy': 'no-referrer',
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
    if (/^\/[a-z0-9-]+((\.kaizen)?\.json|\.png)$/.test(request.path)) next();
    else response.sendStatus(404);
  });
  app.use('/samples', express.static(folders.samples, { index: false }));
  app.use(express.static(folders.studio, { index: 'index.html', maxAge: 0 }));
  app.get('/{*path}', (request, response, next) => {
    const index = join(folders.studio, 'index.html');
    if (/\.[a-z0-9]+$/i.test(request.path) || !existsSync(index)) next();
    else response.sendFile(index);
  });
  return app;
}
