import { proxy, type Remote } from 'comlink';
import type { Project, ProjectBeside } from '@kaizen/core';
import type { CsvChoice, ExportApi, GltfChoice, Written } from './export-api';
import { runInWorker, type WorkerRun } from './run-in-worker';
import { Spare } from './spare';

/** An export under way: its result, and the way to give it up. */
export type ExportRun = WorkerRun<Written>;

export const exportSpare = new Spare(
  () => new Worker(new URL('./export.worker', import.meta.url), { type: 'module' }),
);

/** Writes a glTF in a worker; `null` where it was cancelled. */
export function runGltf(opened: ProjectBeside, choice: GltfChoice): ExportRun {
  return run((api) => api.gltf(opened, choice));
}

/** Writes a CSV in a worker; `progress` is told a share from 0 to 1. */
export function runCsv(project: Project, choice: CsvChoice, progress: (share: number) => void): ExportRun {
  return run((api) => api.csv(project, choice, proxy(progress)));
}

function run(work: (api: Remote<ExportApi>) => Promise<Written>): ExportRun {
  const { result, cancel } = runInWorker<ExportApi, Written>(exportSpare.take(), work);
  const told = result.catch((error: unknown): Written => ({
    ok: false,
    reason: error instanceof Error ? error.message : 'the worker stopped',
  }));
  return { result: told, cancel };
}
