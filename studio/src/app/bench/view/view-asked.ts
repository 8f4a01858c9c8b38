import { computed, Injectable, inject } from '@angular/core';
import { Studio } from '../../state/studio';
import { Stage } from '../stage/stage';
import { trailBeads, type Bead } from './trail';

/** The few things of the Bench that the view draws by: it does nothing when others change. */
@Injectable({ providedIn: 'root' })
export class ViewAsked {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly parts = computed(() => this.studio.bench().parts);
  readonly trailShown = computed(() => this.studio.bench().trail);
  readonly seeing = computed(() => this.studio.bench().seeing);
  readonly keepInSight = computed(() => this.studio.bench().keepInSight);
  readonly ghostsShown = computed(() => this.studio.bench().ghosts);
  /** Where the chosen part goes over the range. */
  readonly beads = computed((): readonly Bead[] => {
    const part = this.parts().at(-1);
    const program = this.stage.program();
    const project = this.stage.shown();
    return part === undefined || !program || !project ? [] : trailBeads(project, program, part);
  });

  /** Why the project can’t be shown; null where it can. */
  readonly problem = computed(() => {
    const [problem] = this.stage.problems();
    return problem ? `This project can’t be shown: at ${problem.pointer}, ${problem.message}.` : null;
  });
}
