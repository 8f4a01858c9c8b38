import { wrap, type Remote } from 'comlink';

/** Work under way in a worker: its result, `null` where it was cancelled, and the way to give it up. */
export interface WorkerRun<T> {
  readonly result: Promise<T | null>;
  readonly cancel: () => void;
}

/** Runs something on a worker's api and ends the worker with it. A worker that breaks rejects with its message. */
export function runInWorker<Api, T>(worker: Worker, work: (api: Remote<Api>) => Promise<T>): WorkerRun<T> {
  let stop: (nothing: null) => void = () => undefined;
  const cancelled = new Promise<null>((resolve) => (stop = resolve));
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || 'the worker stopped'));
  });
  const result = Promise.race([work(wrap<Api>(worker)), failed, cancelled]).finally(() => worker.terminate());
  return { result, cancel: () => stop(null) };
}
