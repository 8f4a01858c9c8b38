import { computed, Injectable, inject, signal } from '@angular/core';
import { asEdited, holdInterlocks, type Edit } from '@kaizen/core';
import { followPointers, pointersOf } from '../../state/pointers';
import { Studio } from '../../state/studio';

/** An edit that is shown and not kept. */
export interface Proposal {
  /** What the undo step is called once it is kept. */
  readonly label: string;
  readonly edit: Edit;
}

/**
 * Whatever is shown and not kept: a drag, a preset rested on, a pushed time, the Stakes. It is shown on the project as it is at each
 * moment, and kept by doing its edit to the project as it is then, so that an undo or an edit from elsewhere meanwhile is
 * never written over. Given up, all is as it was.
 */
@Injectable({ providedIn: 'root' })
export class Proposals {
  private readonly studio = inject(Studio);
  private readonly passing = signal<Proposal | null>(null);
  /** What shows until it is applied or discarded, wherever nothing passes before it: Stakes, an edit of time. */
  readonly standing = signal<Proposal | null>(null);
  /** What is dragged or rested on; null: nothing. */
  readonly shown = this.passing.asReadonly();
  private readonly current = computed(() => this.passing() ?? this.standing());

  /** The project with what is proposed, and where it moves things; null where nothing is. */
  readonly result = computed(() => {
    const project = this.studio.project();
    const proposal = this.current();
    return project && proposal ? holdInterlocks(project, asEdited(proposal.edit(project))) : null;
  });

  /** The Bench's state with what points into the project as the proposal would leave it. */
  readonly bench = computed(() => {
    const [bench, result, project] = [this.studio.bench(), this.result(), this.studio.project()];
    return result && project
      ? { ...bench, ...followPointers(pointersOf(bench), project, result), stakes: bench.stakes }
      : bench;
  });

  show(proposal: Proposal): void {
    this.passing.set(proposal);
  }

  /** Lets go of what is shown; true where something was. */
  drop(): boolean {
    const had = this.passing() !== null;
    this.passing.set(null);
    return had;
  }

  /** Keeps a proposal, or what is shown. */
  take(proposal: Proposal | null = this.passing()): void {
    this.drop();
    if (proposal) this.studio.edit(proposal.label, proposal.edit);
  }
}
