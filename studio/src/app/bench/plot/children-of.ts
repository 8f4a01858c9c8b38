import type { Part, Project } from '@kaizen/core';

const cache = new WeakMap<readonly Part[], Map<string | null, readonly Part[]>>();

/** The parts below each part, in their order, by its id; under null those that hang on nothing. */
export function childrenOf(project: Project): ReadonlyMap<string | null, readonly Part[]> {
  let children = cache.get(project.parts);
  if (!children) {
    const lists = new Map<string | null, Part[]>();
    for (const part of project.parts) {
      const list = lists.get(part.parent) ?? [];
      list.push(part);
      lists.set(part.parent, list);
    }
    children = lists;
    cache.set(project.parts, children);
  }
  return children;
}
