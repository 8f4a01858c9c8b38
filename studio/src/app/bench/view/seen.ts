import { withDescendants, type Part } from '@kaizen/core';
import type { Seeing } from '../../state/bench';

/** Which parts show in the view while one works, and which can be picked in it: the project itself says nothing of it. */
export class Seen {
  private aside: ReadonlySet<string> = new Set();
  private locked: ReadonlySet<string> = new Set();

  private taken: readonly [readonly Part[], Seeing] | null = null;

  take(parts: readonly Part[], seeing: Seeing): void {
    if (this.taken?.[0] === parts && this.taken[1] === seeing) return;
    this.taken = [parts, seeing];
    const { alone, hidden, locked } = seeing;
    const within = (ids: readonly string[]) => new Set(ids.flatMap((id) => withDescendants(parts, id)));
    const kept = within(alone.filter((id) => parts.some((part) => part.id === id)));
    const out = within(hidden);
    this.aside = new Set(
      parts.flatMap(({ id }) => ((kept.size > 0 && !kept.has(id)) || out.has(id) ? [id] : [])),
    );
    this.locked = within(locked);
  }

  hides(id: string): boolean {
    return this.aside.has(id);
  }
  locks(id: string): boolean {
    return this.locked.has(id);
  }
}
