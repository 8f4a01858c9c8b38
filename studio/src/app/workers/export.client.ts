import { proxy, type Remote } from 'comlink';
import type { Project } from '@kaizen/core';
import type { CsvChoice, ExportApi, GltfChoice, Written } from './export-api';
import { runInWorker, type WorkerRun } from './run-in-worker';

/** An export under way: its result, and the way to give it up. */
export type ExportRun = WorkerRun<Written>;

/** Writes a glTF in a worker; `null` where it was cancelled. */
export function runGltf(project: Project, choice: GltfChoice): ExportRun {
  return run((api) => api.gltf(project, choice));
}

/** Writes a CSV in a worker; `progress` is told a share from 0 to 1. */
export function runCsv(project: Project, choice: CsvChoice, progress: (share: number) => void): ExportRun {
  return run((api) => api.csv(project, choice, proxy(progress)));
}

function run(work: (api: Remote<ExportApi>) => Promise<Written>): ExportRun {
  const worker = new Worker(new URL('./export.worker', import.meta.url), { type: 'module' });
  const { result, cancel } = runInWorker<ExportApi, Written>(worker, work);
  const told = result.catch((error: unknown): Written => ({
    ok: false,
    reason: error instanceof Error ? error.message : 'the worker stopped',
  }));
  return { result: told, cancel };
}
