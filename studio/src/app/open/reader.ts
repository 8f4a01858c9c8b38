import { Injectable, inject } from '@angular/core';
import {
  compileCurve,
  curveContext,
  partOf,
  ProjectJoiner,
  restValue,
  splitChannel,
  type Project,
  type ProjectBeside,
  type Result,
} from '@kaizen/core';
import { Turns } from '../ui/in-turn.directive';
import { Progress } from '../ui/progress';
import type { ModelBytes, ModelRead } from '../workers/read-api';
import { runReadModel, runReadProject } from '../workers/read.client';

/** About a millisecond's work. */
const CURVES_A_TURN = 25;

/** Reads what the user brings in a worker, and takes it over from there a few milliseconds at a time. */
@Injectable({ providedIn: 'root' })
export class Reader {
  private readonly progress = inject(Progress);
  private readonly turns = inject(Turns);

  /** A project file, whole and checked; null where the user gave it up. */
  async project(
    name: string,
    bytes: Uint8Array,
    kind: 'json' | 'zip',
  ): Promise<Result<ProjectBeside> | null> {
    const joiner = new ProjectJoiner();
    const run = runReadProject(
      bytes,
      kind,
      (piece) => joiner.take(piece),
      (share) => bar.at(share),
    );
    const bar = this.progress.begin(`Opening ${name}`, run.cancel);
    try {
      const read = await run.result;
      if (!read?.ok) return read;
      const { project } = joiner;
      await this.compileAhead(project);
      return { ok: true, value: { project, bytes: read.bytes } };
    } finally {
      bar.end();
    }
  }

  /** Compiles curves in turns, so that the first picture need not compile them all at once. */
  private compileAhead(project: Project): Promise<void> {
    const context = curveContext(project);
    for (const { curves } of project.clips)
      for (let i = 0; i < curves.length; i += CURVES_A_TURN)
        this.turns.take(() => {
          for (const curve of curves.slice(i, i + CURVES_A_TURN)) {
            const { part: id, property } = splitChannel(curve.channel);
            const part = partOf(project, id);
            compileCurve(curve, (part && restValue(part, property)) ?? 0, context);
          }
        });
    return new Promise((done) => this.turns.take(done));
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
