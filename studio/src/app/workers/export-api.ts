import type { Project, ProjectBeside } from '@kaizen/core';

/** What a file was written as, or why it could not be. */
export type Written =
  | { readonly ok: true; readonly bytes: Uint8Array; readonly summary: string }
  | { readonly ok: false; readonly reason: string };

export interface CsvChoice {
  readonly rates: boolean;
}
export interface GltfChoice {
  readonly bake: boolean;
  readonly text: boolean;
  /** Share of a curve's range that what is not carried exactly may be off. */
  readonly tolerance: number;
}

/** Exports that run in a worker. `progress` is told a share from 0 to 1. */
export interface ExportApi {
  /** A project that names its models, and their bytes. */
  gltf(opened: ProjectBeside, choice: GltfChoice): Written;
  csv(
    project: Project,
    choice: CsvChoice,
    progress: (share: number) => void | Promise<void>,
  ): Promise<Written>;
}
