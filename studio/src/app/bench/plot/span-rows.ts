import { constraintSays, type Constraint, type Part, type Project } from '@kaizen/core';

/** A constraint of a part: what holds it, and when. */
export interface SpanRow {
  readonly kind: 'span';
  readonly id: string;
  readonly part: Part;
  readonly depth: number;
  readonly constraint: Constraint;
  readonly words: string;
}

export const NO_SPANS: readonly Constraint[] = [];
const spansByPart = new WeakMap<readonly Constraint[], ReadonlyMap<string, readonly Constraint[]>>();

/** The constraints that act on a part. */
export function spansOf({ constraints }: Project, part: string): readonly Constraint[] {
  let byPart = spansByPart.get(constraints);
  if (!byPart) {
    const made = new Map<string, Constraint[]>();
    for (const each of constraints) {
      const list = made.get(each.part);
      if (list) list.push(each);
      else made.set(each.part, [each]);
    }
    spansByPart.set(constraints, (byPart = made));
  }
  return byPart.get(part) ?? NO_SPANS;
}

export function spanRow(project: Project, part: Part, constraint: Constraint, depth: number): SpanRow {
  return {
    kind: 'span',
    id: constraint.id,
    part,
    depth,
    constraint,
    words: constraintSays(project, constraint),
  };
}
