import type { HashApi } from './hash-api';
import { runInWorker, type WorkerRun } from './run-in-worker';
import { Spare } from './spare';

export const hashSpare = new Spare(
  () => new Worker(new URL('./hash.worker', import.meta.url), { type: 'module' }),
);

/** Finds the SHA-256 of some bytes in a worker. */
export function runHash(bytes: Uint8Array): WorkerRun<string> {
  return runInWorker<HashApi, string>(hashSpare.take(), (api) => api.sha256(bytes));
}
