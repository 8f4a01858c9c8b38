import { proxy } from 'comlink';
import type { DocumentPiece } from '@kaizen/core';
import type { ModelBytes, ModelRead, ProjectRead } from './read-api';
import { runHash } from './hash.client';
import { runInWorker, type WorkerRun } from './run-in-worker';

/** Reads and checks a project in a worker, which tells its pieces one after the other; they count once the result is ok. */
export function runReadProject(
  bytes: Uint8Array,
  kind: 'json' | 'zip',
  piece: (piece: DocumentPiece) => void,
  progress: (share: number) => void,
): WorkerRun<ProjectRead> {
  return runInWorker<ProjectRead>((api) => api.project(bytes, kind, proxy(piece), proxy(progress)));
}

/** Reads a model in a worker, and hashes it in another where its bytes are kept as they are. */
export function runReadModel(model: ModelBytes, progress: (share: number) => void): WorkerRun<ModelRead> {
  let hash: WorkerRun<string> | null = null;
  const sha256 = async () => {
    hash = runHash(model.bytes);
    return (await hash.result) ?? Promise.reject(new Error('given up'));
  };
  const { result, cancel } = runInWorker<ModelRead>((api) =>
    api.model(model, proxy(progress), proxy(sha256)),
  );
  return { result: result.finally(() => hash?.cancel()), cancel };
}
