import { curvesOfPart, splitChannel, type Project } from '@kaizen/core';

/** Parts with children where nothing below moves: a project opens with these closed, so that what moves is in sight. */
export function quietGroups(project: Project): readonly string[] {
  const keyed = project.parts.filter((part) => curvesOfPart(project, part).length > 0);
  const driven = project.drivers.filter(({ muted }) => !muted);
  const moving = [...keyed.map(({ id }) => id), ...driven.map(({ target }) => splitChannel(target).part)];
  if (moving.length === 0) return [];
  const parents = new Map(project.parts.map((part) => [part.id, part.parent]));
  const lively = new Set<string>();
  for (const part of moving) {
    let id: string | null = part;
    for (; id !== null && !lively.has(id); id = parents.get(id) ?? null) lively.add(id);
  }
  const withChildren = new Set(project.parts.map((part) => part.parent));
  return project.parts
    .filter((part) => withChildren.has(part.id) && !lively.has(part.id))
    .map((part) => part.id);
}
