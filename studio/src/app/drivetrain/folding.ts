import { computed, linkedSignal, untracked, type Signal } from '@angular/core';
import type { Network, Project } from '@kaizen/core';

/** A network with more pieces than this is folded at first. */
const MANY = 120;

/** Which parts stand in the network as one piece, with all that rides on them. Only the uppermost parts fold. */
export class Folding {
  /** At first nothing of a network that is taken in at a glance, and all of a larger one. */
  readonly folded = linkedSignal<boolean, ReadonlySet<string>>({
    source: () => this.network().nodes.length > MANY,
    // an edit of the network leaves what was folded by hand
    computation: (many, before) =>
      before?.source === many ? before.value : many ? untracked(this.foldable) : new Set(),
  });

  constructor(
    private readonly project: Signal<Project | null>,
    private readonly network: Signal<Network>,
  ) {}

  private readonly parents = computed(
    () => new Map(this.project()?.parts.map(({ id, parent }) => [id, parent])),
  );
  /** The uppermost parts below which several parts have pieces of the network. */
  private readonly foldable = computed((): ReadonlySet<string> => {
    const parts = new Map<string, Set<string>>();
    for (const { part } of this.network().nodes) {
      const top = this.topOf(part);
      parts.set(top, (parts.get(top) ?? new Set()).add(part));
    }
    return new Set([...parts].flatMap(([top, { size }]) => (size > 1 ? [top] : [])));
  });
  readonly possible = computed(() => this.foldable().size > 0);

  private topOf(part: string): string {
    let top = part;
    for (let above = this.parents().get(top); above; above = this.parents().get(top)) top = above;
    return top;
  }

  /** Folds all that can be, or nothing. */
  all(fold: boolean): void {
    this.folded.set(fold ? this.foldable() : new Set());
  }

  /** Folds or opens the uppermost part that a part rides on. */
  toggle(part: string): void {
    const top = this.topOf(part);
    const folded = new Set(this.folded());
    if (!folded.delete(top)) folded.add(top);
    this.folded.set(folded);
  }

  of(part: string): 'folded' | 'open' | null {
    if (this.folded().has(part)) return 'folded';
    return this.foldable().has(part) ? 'open' : null;
  }
}
