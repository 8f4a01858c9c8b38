import type { Part, Project, Range } from '../project';
import { withDescendants } from '../rig';

/** Changes one part; all others stay the very same objects. */
export function changePart(project: Project, id: string, change: (part: Part) => Part): Project {
  const i = project.parts.findIndex((part) => part.id === id);
  const part = project.parts[i];
  if (!part) return project;
  const next = change(part);
  if (next === part) return project;
  const parts = project.parts.slice();
  parts[i] = next;
  return { ...project, parts };
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

/** Adds brought parts and assets below the project's own, ids made unique; a model that is there already is kept once. */
export function addParts(
  project: Project,
  brought: Pick<Project, 'parts' | 'assets'>,
): { readonly project: Project; readonly added: readonly string[] } {
  const taken = new Set(project.parts.map((part) => part.id));
  const renamed = new Map<string, string>();
  for (const part of brought.parts) {
    let id = part.id;
    for (let n = 2; taken.has(id); n++) id = `${part.id}-${n}`;
    taken.add(id);
    renamed.set(part.id, id);
  }
  const known = new Map(project.assets.map((asset) => [asset.sha256, asset.id]));
  const assetIds = new Map(brought.assets.map((asset) => [asset.id, known.get(asset.sha256) ?? asset.id]));
  const parts = brought.parts.map((part): Part => {
    const placed = {
      ...part,
      id: renamed.get(part.id)!,
      parent: part.parent === null ? null : renamed.get(part.parent)!,
    };
    if (placed.kind !== 'mesh' || placed.geometry.shape !== 'asset') return placed;
    return { ...placed, geometry: { ...placed.geometry, asset: assetIds.get(placed.geometry.asset)! } };
  });
  const assets = brought.assets.filter((asset) => !known.has(asset.sha256));
  return {
    project: { ...project, parts: [...project.parts, ...parts], assets: [...project.assets, ...assets] },
    added: parts.map((part) => part.id),
  };
}
