import { partOf, type Project, type Result, type Vec3 } from '../../project';
import { compile, pivotAt, seenFrom } from '../../evaluate';
import { withDescendants } from '../../rig';
import { addParts } from '../bring-into';
import { newPart } from '../new-part';
import { refused } from '../links/refused';
import { ride } from '../links/ride';

/**
 * Puts parts into a new group that stands in their middle, under what the first of them rides on; their places in the world stay at a
 * frame, and their own motions go on. Parts that ride on another of them come along with it.
 */
export function groupParts(
  project: Project,
  ids: readonly string[],
  frame: number,
): Result<{ readonly project: Project; readonly group: string }> {
  const below = new Set(ids.flatMap((id) => withDescendants(project.parts, id).slice(1)));
  const roots = ids.filter((id) => !below.has(id) && partOf(project, id));
  const [first] = roots;
  if (first === undefined) return refused('there is nothing to group');
  const compiled = compile(project);
  if (!compiled.ok) return compiled;
  const parent = partOf(project, first)!.parent;
  const places = roots.map((id) => pivotAt(compiled.value, project, id, frame));
  const middle = [0, 1, 2].map((n) => places.reduce((sum, place) => sum + place[n]!, 0) / places.length);
  const rest = seenFrom(compiled.value, parent, frame, middle as unknown as Vec3) ?? [0, 0, 0];
  const standing = {
    ...newPart('group', 'Group'),
    rest: { translate: rest, rotate: [0, 0, 0], scale: [1, 1, 1] },
  } as const;
  const { project: withGroup, added } = addParts(project, { parts: [standing], assets: [] }, parent);
  const group = added[0]!;
  let made = withGroup;
  for (const id of roots) {
    const ridden = ride(made, id, group, 'place', frame);
    if (!ridden.ok) return ridden;
    made = ridden.value.project;
  }
  return { ok: true, value: { project: made, group } };
}
