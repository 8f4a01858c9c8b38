import { runInWorker, type WorkerRun } from './run-in-worker';

/** Finds the SHA-256 of some bytes in a worker. */
export function runHash(bytes: Uint8Array): WorkerRun<string> {
  return runInWorker((api) => api.sha256(bytes));
}
