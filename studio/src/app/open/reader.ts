import { Injectable, inject } from '@angular/core';
import { ProjectJoiner, type Project, type ProjectBeside, type Result } from '@kaizen/core';
import { Progress } from '../ui/progress';
import type { ModelBytes, ModelRead } from '../workers/read-api';
import { runReadModel, runReadProject } from '../workers/read.client';

/** Reads what the user brings in a worker, and takes it over from there a few milliseconds at a time. */
@Injectable({ providedIn: 'root' })
export class Reader {
  private readonly progress = inject(Progress);

  /**
   * A project file, whole and checked; null where the user gave it up. `arrived` gets the project once all of it is here, while the
   * worker still finds out whether what it names is there.
   */
  async project(
    name: string,
    bytes: Uint8Array,
    kind: 'json' | 'zip',
    arrived: (project: Project) => void,
  ): Promise<Result<ProjectBeside> | null> {
    const joiner = new ProjectJoiner();
    const run = runReadProject(
      bytes,
      kind,
      (piece, isLast) => {
        joiner.take(piece);
        if (isLast) arrived(joiner.project);
      },
      (share) => bar.at(share),
    );
    const bar = this.progress.begin(`Opening ${name}`, run.cancel);
    try {
      const read = await run.result;
      if (!read?.ok) return read;
      return { ok: true, value: { project: joiner.project, bytes: read.bytes } };
    } finally {
      bar.end();
    }
  }

  /** A model as parts; null where the user gave it up. */
  async model(model: ModelBytes): Promise<ModelRead | null> {
    const run = runReadModel(model, (share) => bar.at(share));
    const bar = this.progress.begin(`Reading ${model.name}`, run.cancel);
    try {
      return await run.result;
    } finally {
      bar.end();
    }
  }
}
