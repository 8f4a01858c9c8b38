import { proxy, wrap } from 'comlink';
import type { Project } from '@kaizen/core';
import type { CsvChoice, ExportApi, GltfChoice, Written } from './export-api';

/** An export under way: its result, and the way to give it up. */
export interface ExportRun {
  readonly result: Promise<Written | null>;
  cancel(): void;
}

/** Writes a glTF in a worker; `null` where it was cancelled. */
export function runGltf(project: Project, choice: GltfChoice): ExportRun {
  return run((api) => api.gltf(project, choice));
}

/** Writes a CSV in a worker; `progress` is told a share from 0 to 1. */
export function runCsv(project: Project, choice: CsvChoice, progress: (share: number) => void): ExportRun {
  return run((api) => api.csv(project, choice, proxy(progress)));
}

function run(work: (api: ReturnType<typeof wrap<ExportApi>>) => Promise<Written>): ExportRun {
  const worker = new Worker(new URL('./export.worker', import.meta.url), { type: 'module' });
  let stop: (nothing: null) => void = () => undefined;
  const cancelled = new Promise<null>((resolve) => (stop = resolve));
  const failed = new Promise<Written>((resolve) => {
    worker.onerror = (event) => resolve({ ok: false, reason: event.message || 'the worker stopped' });
  });
  const result = Promise.race([work(wrap<ExportApi>(worker)), failed, cancelled]).finally(() =>
    worker.terminate(),
  );
  return { result, cancel: () => stop(null) };
}
