import { activeClip, splitChannel, type Project } from '@kaizen/core';

/** Parts with children where nothing below moves: a project opens with these closed, so that what moves is in sight. */
export function quietGroups(project: Project): readonly string[] {
  const moving = [
    ...(activeClip(project)?.curves ?? []).map(({ channel }) => channel),
    ...project.drivers.filter(({ muted }) => !muted).map(({ target }) => target),
  ];
  if (moving.length === 0) return [];
  const parents = new Map(project.parts.map((part) => [part.id, part.parent]));
  const lively = new Set<string>();
  for (const channel of moving) {
    let id: string | null = splitChannel(channel).part;
    for (; id !== null && !lively.has(id); id = parents.get(id) ?? null) lively.add(id);
  }
  const withChildren = new Set(project.parts.map((part) => part.parent));
  return project.parts
    .filter((part) => withChildren.has(part.id) && !lively.has(part.id))
    .map((part) => part.id);
}
