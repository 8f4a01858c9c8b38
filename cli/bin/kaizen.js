#!/usr/bin/env node
import { existsSync } from 'node:fs';

const bundle = new URL('../dist/kaizen.js', import.meta.url);
if (!existsSync(bundle)) {
  const { buildNode } = await import('../../tools/build.mjs');
  await buildNode();
}
await import(bundle.href);
