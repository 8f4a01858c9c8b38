import { wrap, type Remote } from 'comlink';
import { Spare } from './spare';
import type { WorkApi } from './work-api';

/** Work under way in a worker: its result, `null` where it was cancelled, and the way to give it up. */
export interface WorkerRun<T> {
  readonly result: Promise<T | null>;
  readonly cancel: () => void;
}

const spare = new Spare(() => new Worker(new URL('./work.worker', import.meta.url), { type: 'module' }));

/** Opens a worker ahead of its use. */
export function prepareWorker(): void {
  spare.prepare();
}

/** Runs something in a worker and ends the worker with it. One that breaks rejects with its message. */
export function runInWorker<T>(work: (api: Remote<WorkApi>) => Promise<T>): WorkerRun<T> {
  const worker = spare.take();
  let stop: (nothing: null) => void = () => undefined;
  const cancelled = new Promise<null>((resolve) => (stop = resolve));
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || 'the worker stopped'));
  });
  const result = Promise.race([work(wrap<WorkApi>(worker)), failed, cancelled]).finally(() =>
    worker.terminate(),
  );
  return { result, cancel: () => stop(null) };
}
