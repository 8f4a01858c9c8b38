import { activeClip, splitChannel, type Project } from '@kaizen/core';

/** Parts with children where nothing below moves: a project opens with these closed, so that what moves is in sight. */
export function quietGroups(project: Project): readonly string[] {
  const curves = activeClip(project)?.curves ?? [];
  const driven = project.drivers.filter(({ muted }) => !muted);
  if (curves.length === 0 && driven.length === 0) return [];
  const parents = new Map(project.parts.map((part) => [part.id, part.parent]));
  const lively = new Set<string>();
  let last = '';
  const enliven = (channel: string) => {
    // Most channels stand behind another of the same part.
    if (channel.charAt(last.length) === '/' && channel.startsWith(last)) return;
    let id: string | null = (last = splitChannel(channel).part);
    for (; id !== null && !lively.has(id); id = parents.get(id) ?? null) lively.add(id);
  };
  for (const { channel } of curves) enliven(channel);
  for (const { target } of driven) enliven(target);
  const withChildren = new Set(project.parts.map((part) => part.parent));
  return project.parts
    .filter((part) => withChildren.has(part.id) && !lively.has(part.id))
    .map((part) => part.id);
}
