import { wrap, type Remote } from 'comlink';
import { Spare } from './spare';
import type { WorkApi } from './work-api';

/** Work under way in a worker: its result, `null` where it was cancelled, and the way to give it up. */
export interface WorkerRun<T> {
  readonly result: Promise<T | null>;
  readonly cancel: () => void;
}

/** A worker with the way to ask it, which is one as long as it lives: given up, it takes the worker's ears with it. */
const spare = new Spare(() => {
  const worker = new Worker(new URL('./work.worker', import.meta.url), { type: 'module' });
  return { worker, api: wrap<WorkApi>(worker) };
});

/** Opens a worker ahead of its use. */
export function prepareWorker(): void {
  spare.prepare();
}

/** Runs something in the worker that waits, which goes on waiting; null where none does. */
export async function rehearseInWorker<T>(work: (api: Remote<WorkApi>) => Promise<T>): Promise<T | null> {
  return spare.idle && (await work(spare.idle.api));
}

/** Runs something in a worker and ends the worker with it. One that breaks rejects with its message. */
export function runInWorker<T>(work: (api: Remote<WorkApi>) => Promise<T>): WorkerRun<T> {
  const { worker, api } = spare.take();
  let stop: (nothing: null) => void = () => undefined;
  const cancelled = new Promise<null>((resolve) => (stop = resolve));
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || 'the worker stopped'));
  });
  const result = Promise.race([work(api), failed, cancelled]).finally(() => worker.terminate());
  return { result, cancel: () => stop(null) };
}
