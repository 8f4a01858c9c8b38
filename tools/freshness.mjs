/** What is newer than what: so that starting and testing build only what is missing or out of date. */
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

const SKIPPED = new Set(['node_modules', 'dist', '.angular', '.git', 'test-results']);

/** The newest modification time of a file or anything in a folder, in milliseconds; 0 where there is nothing. */
export function newest(path) {
  if (!existsSync(path)) return 0;
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  const within = readdirSync(path)
    .filter((name) => !SKIPPED.has(name) && !name.includes('.generated.'))
    .map((name) => newest(join(path, name)));
  return Math.max(0, ...within);
}

/** Whether an output is missing or older than any of its sources. */
export function isStale(output, sources) {
  if (!existsSync(output)) return true;
  const made = statSync(output).mtimeMs;
  return sources.some((source) => newest(source) > made);
}
