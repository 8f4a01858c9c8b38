import { placeOfId, replacedAt, type Part, type Project, type Range } from '../project';
import { withDescendants } from '../rig';

/** Changes one part; all others stay the very same objects. */
export function changePart(project: Project, id: string, change: (part: Part) => Part): Project {
  const i = placeOfId(project.parts, id);
  const part = project.parts[i];
  if (!part) return project;
  const next = change(part);
  if (next === part) return project;
  return { ...project, parts: replacedAt(project.parts, i, next) };
}

/** Parts that may stand above a part: all but itself and what hangs below it. */
export function possibleParents(project: Project, id: string): readonly Part[] {
  const below = new Set(withDescendants(project.parts, id));
  return project.parts.filter((part) => !below.has(part.id));
}

/** Sets a rest value by its property, such as `translate.x` or `camera.focalLength`. */
export function setRestValue(project: Project, id: string, property: string, value: number): Project {
  return changePart(project, id, (part) => {
    const [group = '', name = '', component] = property.split('.');
    if (group === 'translate' || group === 'rotate' || group === 'scale') {
      const vector = part.rest[group].map((old, i) => (i === 'xyz'.indexOf(name) ? value : old));
      return { ...part, rest: { ...part.rest, [group]: vector } };
    }
    if (property === 'visible') return { ...part, visible: value };
    const block = (part as unknown as Record<string, Record<string, unknown> | undefined>)[group];
    if (!block) return part;
    if (component === undefined) return { ...part, [group]: { ...block, [name]: value } };
    const list = (block[name] as number[]).map((old, i) => (i === 'rgba'.indexOf(component) ? value : old));
    return { ...part, [group]: { ...block, [name]: list } };
  });
}

export function setRange(project: Project, range: Partial<Range>): Project {
  const next = { ...project.range, ...range };
  return next.end < next.start ? project : { ...project, range: next };
}

/** Puts a part one place before or after its neighbour under the same parent: the order of the rows. */
export function reorderPart(project: Project, id: string, by: -1 | 1): Project {
  const at = placeOfId(project.parts, id);
  const part = project.parts[at];
  if (!part) return project;
  const siblings = project.parts.flatMap(({ parent }, i) => (parent === part.parent ? [i] : []));
  const other = siblings[siblings.indexOf(at) + by];
  if (other === undefined) return project;
  const parts = project.parts.slice();
  [parts[at], parts[other]] = [parts[other]!, parts[at]!];
  return { ...project, parts };
}

/** Puts a part right before or after another in the list, whatever they hang on. */
export function placePart(project: Project, id: string, beside: string, after: boolean): Project {
  const part = project.parts.find((each) => each.id === id);
  if (!part || id === beside) return project;
  const others = project.parts.filter((each) => each !== part);
  const at = others.findIndex((each) => each.id === beside);
  if (at < 0) return project;
  const parts = others.toSpliced(at + (after ? 1 : 0), 0, part);
  return parts.every((each, i) => each === project.parts[i]) ? project : { ...project, parts };
}
