import { proxy, transfer, type Remote } from 'comlink';
import { ProjectJoiner, type DocumentPiece, type Project } from '@kaizen/core';
import type { ModelBytes, ModelRead, ProjectRead } from './read-api';
import { runHash } from './hash.client';
import { rehearsalProject } from './rehearsal-project';
import type { WorkApi } from './work-api';
import { rehearseInWorker, runInWorker, type WorkerRun } from './run-in-worker';

/** Reads and checks a project in a worker, which tells its pieces one after the other; they count once the result is ok. */
export function runReadProject(
  bytes: Uint8Array,
  kind: 'json' | 'zip',
  piece: TakePiece,
  progress: (share: number) => void,
): WorkerRun<ProjectRead> {
  return runInWorker((api) => readInPieces(api, bytes, kind, piece, progress));
}

type TakePiece = (piece: DocumentPiece, isLast: boolean) => void;

/** What reading came to, once the pieces are here, too: they come by a way of their own, and the page may be slower than the worker. */
async function readInPieces(
  api: Remote<WorkApi>,
  bytes: Uint8Array,
  kind: 'json' | 'zip',
  take: TakePiece,
  progress: (share: number) => void,
): Promise<ProjectRead> {
  let piece: TakePiece = take;
  const all = new Promise<void>((resolve, reject) => {
    piece = (each, isLast) => {
      try {
        take(each, isLast);
        if (isLast) resolve();
      } catch (error) {
        reject(error instanceof Error ? error : new Error(String(error)));
      }
    };
  });
  // It is told by whoever waits for it.
  all.catch(() => undefined);
  const sent = bytes.byteLength === bytes.buffer.byteLength ? transfer(bytes, [bytes.buffer]) : bytes;
  const read = await api.project(sent, kind, proxy(piece), proxy(progress));
  if (read.ok) await all;
  return read;
}

/**
 * Reads a made-up project in the worker that waits, and gives it; null where none waits. Code that has run once runs much faster, and a
 * big project takes the very same way.
 */
export async function rehearseReading(): Promise<Project | null> {
  const joiner = new ProjectJoiner();
  const bytes = new TextEncoder().encode(rehearsalProject());
  const read = await rehearseInWorker((api) =>
    readInPieces(
      api,
      bytes,
      'json',
      (each) => joiner.take(each),
      () => undefined,
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
