import { proxy } from 'comlink';
import type { DocumentPiece } from '@kaizen/core';
import type { ModelBytes, ModelRead, ProjectRead, ReadApi } from './read-api';
import { runInWorker, type WorkerRun } from './run-in-worker';
import { Spare } from './spare';

export const readSpare = new Spare(
  () => new Worker(new URL('./read.worker', import.meta.url), { type: 'module' }),
);

/** Reads and checks a project in a worker; its pieces are told one after the other once all of it is good. */
export function runReadProject(
  bytes: Uint8Array,
  kind: 'json' | 'zip',
  piece: (piece: DocumentPiece) => void,
  progress: (share: number) => void,
): WorkerRun<ProjectRead> {
  return runInWorker<ReadApi, ProjectRead>(readSpare.take(), (api) =>
    api.project(bytes, kind, proxy(piece), proxy(progress)),
  );
}

/** Reads a model in a worker. */
export function runReadModel(model: ModelBytes, progress: (share: number) => void): WorkerRun<ModelRead> {
  return runInWorker<ReadApi, ModelRead>(readSpare.take(), (api) => api.model(model, proxy(progress)));
}
