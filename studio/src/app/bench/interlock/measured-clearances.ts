import { computed, Injectable, inject, signal } from '@angular/core';
import type { Interlock } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { ModelMeshes } from '../stage/model-meshes';
import { Stage } from '../stage/stage';
import { PairClearance, type Clearance } from './clearance';

/** How near what interlocks tie come to each other, as far as it was measured. Of the project as it is kept: not anew at each step of a drag. */
@Injectable({ providedIn: 'root' })
export class MeasuredClearances {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly meshes = inject(ModelMeshes);
  private readonly known = computed(() => ({
    project: this.studio.project(),
    pairs: new Map<Interlock, PairClearance>(),
    measured: signal<ReadonlyMap<Interlock, Clearance | null>>(new Map()),
  }));

  /** The two that an interlock of the project ties; null where the project has no such interlock. */
  pairOf(lock: Interlock): PairClearance | null {
    const { project, pairs } = this.known();
    if (!project?.interlocks.includes(lock)) return null;
    const pair = pairs.get(lock) ?? new PairClearance(project, lock, this.meshes.of);
    pairs.set(lock, pair);
    return pair;
  }

  of(lock: Interlock): Clearance | null {
    return this.known().measured().get(lock) ?? null;
  }

  measure(lock: Interlock): void {
    const [pair, program] = [this.pairOf(lock), this.stage.program()];
    if (!pair || !program) return;
    const least = pair.measure(program);
    this.known().measured.update((measured) => new Map(measured).set(lock, least));
  }
}
