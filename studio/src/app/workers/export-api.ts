import type { ProjectBeside, WriteSettings } from '@kaizen/core';

/** What a file was written as, or why it could not be. */
export type FileWritten =
  | { readonly ok: true; readonly bytes: Uint8Array; readonly summary: string }
  | { readonly ok: false; readonly reason: string };

/** What a user chooses of how a file is written. */
export type WriteChoice = Pick<WriteSettings, 'bake' | 'tolerance' | 'rates'>;

/** Writing of files in a worker. */
export interface ExportApi {
  /** Writes a project that names its models, and their bytes, in a format of the registry. `progress` is told a share from 0 to 1. */
  write(
    format: string,
    opened: ProjectBeside,
    choice: WriteChoice,
    progress: (share: number) => void | Promise<void>,
  ): Promise<FileWritten>;
}
