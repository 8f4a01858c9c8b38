import { proxy } from 'comlink';
import type { ProjectBeside } from '@kaizen/core';
import type { FileWritten, WriteChoice } from './export-api';
import { runInWorker, type WorkerRun } from './run-in-worker';

/** An export under way: its result, and the way to give it up. */
export type ExportRun = WorkerRun<FileWritten>;

/** Writes a project in a format of the registry in a worker; `null` where it was cancelled. `progress` is told a share from 0 to 1. */
export function runWrite(
  format: string,
  opened: ProjectBeside,
  choice: WriteChoice,
  progress: (share: number) => void,
): ExportRun {
  const { result, cancel } = runInWorker<FileWritten>((api) =>
    api.write(format, opened, choice, proxy(progress)),
  );
  const told = result.catch((error: unknown): FileWritten => ({
    ok: false,
    reason: error instanceof Error ? error.message : 'the worker stopped',
  }));
  return { result: told, cancel };
}
