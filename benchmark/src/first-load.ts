import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Result } from './measure';

/** What the first page fetches: the scripts that index.html names, and what these import from the start. */
export function firstLoad(dist: string): Result[] {
  const html = readFileSync(join(dist, 'index.html'), 'utf8');
  const waiting = [...html.matchAll(/(?:src|href)="([^"]+\.js)"/g)].map((match) => match[1]!);
  const first = new Set<string>();
  while (waiting.length > 0) {
    const name = waiting.pop()!;
    if (first.has(name)) continue;
    first.add(name);
    const text = readFileSync(join(dist, name), 'utf8');
    for (const match of text.matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/g)) waiting.push(match[1]!);
  }
  const projects = readdirSync(dist).filter(
    (name) => name.endsWith('.js') && isThe(dist, name, 'kz-projects'),
  );
  const fetched = [...first, ...projects.filter((name) => !first.has(name))];
  const bytes = fetched.reduce((sum, name) => sum + gzipSync(readFileSync(join(dist, name))).length, 0);
  const withThree = fetched.filter((name) => isThe(dist, name, 'WebGLRenderer'));
  return [
    {
      what: `script that the first page fetches, ${fetched.length} files, packed by gzip`,
      measured: `${Math.round(bytes / 1000)} kB`,
      wanted: 'under 600 kB',
      good: bytes < 600_000,
    },
    {
      what: 'of these, files with three.js inside, which comes with the Bench only',
      measured: String(withThree.length),
      wanted: '0',
      good: withThree.length === 0,
    },
  ];
}

function isThe(dist: string, name: string, mark: string): boolean {
  return readFileSync(join(dist, name), 'utf8').includes(mark);
}
