import { proxy, transfer } from 'comlink';
import { ProjectJoiner, type DocumentPiece, type Project } from '@kaizen/core';
import type { ModelBytes, ModelRead, ProjectRead } from './read-api';
import { runHash } from './hash.client';
import { rehearsalProject } from './rehearsal-project';
import { rehearseInWorker, runInWorker, type WorkerRun } from './run-in-worker';

/** Reads and checks a project in a worker, which tells its pieces one after the other; they count once the result is ok. */
export function runReadProject(
  bytes: Uint8Array,
  kind: 'json' | 'zip',
  piece: (piece: DocumentPiece, isLast: boolean) => void,
  progress: (share: number) => void,
): WorkerRun<ProjectRead> {
  const sent = bytes.byteLength === bytes.buffer.byteLength ? transfer(bytes, [bytes.buffer]) : bytes;
  return runInWorker<ProjectRead>((api) => api.project(sent, kind, proxy(piece), proxy(progress)));
}

/**
 * Reads a made-up project in the worker that waits, and gives it; null where none waits. Code that has run once runs much faster, and a
 * big project takes the very same way.
 */
export async function rehearseReading(): Promise<Project | null> {
  const joiner = new ProjectJoiner();
  const piece = (each: DocumentPiece) => joiner.take(each);
  const bytes = new TextEncoder().encode(rehearsalProject());
  const read = await rehearseInWorker<ProjectRead>((api) =>
    api.project(
      bytes,
      'json',
      proxy(piece),
      proxy(() => undefined),
    ),
  );
  return read?.ok ? joiner.project : null;
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
