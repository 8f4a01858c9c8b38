import {
  partOf,
  type Asset,
  type AssetGeometry,
  type MeshPart,
  type Morph,
  type Part,
  type Project,
} from '../project';
import { withDescendants } from '../rig';
import { addParts } from './bring-into';
import { removeTargetShape } from './build';

/** What replacing a model came to. */
export interface ModelReplaced {
  readonly project: Project;
  /** Parts that show the newer meshes. */
  readonly replaced: number;
  /** Names of parts whose mesh the newer model has no more: they keep the old one. */
  readonly missing: readonly string[];
  /** Names of nodes that the older one had not: they came as parts. */
  readonly added: readonly string[];
  /** Target shapes that the newer meshes have no more, as `part, shape`: they went with their keys. */
  readonly lostShapes: readonly string[];
}

/**
 * Puts a newer version of a model in the place of one that is there. Meshes are matched by the names of their nodes; parts keep their ids,
 * places, links and keys. What is new comes in beside, under the part that stands for the node above it; what is gone stays as it
 * was, and is told.
 */
export function replaceModel(project: Project, asset: string, newer: Project): ModelReplaced {
  const old = project.assets.find(({ id }) => id === asset);
  const fresh = newer.assets.find(({ type }) => type === old?.type);
  if (!old || !fresh) return { project, replaced: 0, missing: [], added: [], lostShapes: [] };
  const known = project.assets.find(({ sha256 }) => sha256 === fresh.sha256);
  const taken = new Set(project.assets.map(({ id }) => id));
  const id = known?.id ?? freeId(fresh.id, taken);
  const byNode = new Map(
    newer.parts.flatMap((part) => (isOf(part, fresh.id) ? [[part.geometry.node, part] as const] : [])),
  );
  const missing: string[] = [];
  const lost: { readonly part: string; readonly name: string }[] = [];
  let replaced = 0;
  const parts = project.parts.map((part): Part => {
    if (!isOf(part, asset)) return part;
    const match = byNode.get(part.geometry.node);
    if (!match) {
      missing.push(part.name);
      return part;
    }
    replaced++;
    const morphs = morphsOf(part, match);
    const gone = part.morphs.filter(({ name }) => !morphs.some((each) => each.name === name));
    lost.push(...gone.map(({ name }) => ({ part: part.id, name })));
    return { ...part, geometry: newerGeometry(part, match, id), morphs: [...morphs, ...gone] };
  });
  const assets: readonly Asset[] = known ? project.assets : [...project.assets, { ...fresh, id }];
  const withMeshes = {
    ...project,
    parts,
    assets: missing.length > 0 ? assets : assets.filter((each) => each !== old),
  };
  const whole = lost.reduce<Project>(
    (at, { part, name }) => removeTargetShape(at, part, name).project,
    withMeshes,
  );
  const { project: made, added } = withNewNodes(whole, asset, id, project, newer, fresh.id);
  const lostShapes = lost.map(({ part, name }) => `${partOf(project, part)!.name}, ${name}`);
  return { project: made, replaced, missing, added, lostShapes };
}

type ModelMesh = MeshPart & {
  readonly geometry: AssetGeometry;
};

function isOf(part: Part, asset: string): part is ModelMesh {
  return part.kind === 'mesh' && part.geometry.shape === 'asset' && part.geometry.asset === asset;
}

/** The newer mesh on the joints that the older one has; where their number is another, it stands as modelled. */
function newerGeometry(part: ModelMesh, match: ModelMesh, asset: string): AssetGeometry {
  const { skin: joints = [] } = part.geometry;
  const { skin, ...geometry } = match.geometry;
  return { ...geometry, asset, ...(skin?.length === joints.length ? { skin: joints } : {}) };
}

function freeId(id: string, taken: ReadonlySet<string>): string {
  let free = id;
  for (let n = 2; taken.has(free); n++) free = `${id}-${n}`;
  return free;
}

/** The newer mesh's own shapes with the values that the older ones had, and those made here. */
function morphsOf(part: MeshPart, match: MeshPart): readonly Morph[] {
  const values = new Map(part.morphs.map((morph) => [morph.name, morph.value]));
  const own = match.morphs.map((morph) => ({ ...morph, value: values.get(morph.name) ?? morph.value }));
  const names = new Set(own.map(({ name }) => name));
  return [...own, ...part.morphs.filter((morph) => morph.moves && !names.has(morph.name))];
}

/** Nodes that no part stands for yet, by name, among those that came with the older model. */
function withNewNodes(
  project: Project,
  asset: string,
  id: string,
  before: Project,
  newer: Project,
  freshId: string,
): { readonly project: Project; readonly added: readonly string[] } {
  const roots = new Set(before.parts.flatMap((part) => (isOf(part, asset) ? [rootOf(before, part)] : [])));
  const there = new Map<string, string>();
  for (const root of roots)
    for (const each of withDescendants(before.parts, root)) there.set(partOf(before, each)!.name, each);
  const fresh = newer.parts.filter(({ name }) => !there.has(name));
  if (fresh.length === 0) return { project, added: [] };
  const freshIds = new Set(fresh.map((part) => part.id));
  const parents = new Map(fresh.map((part) => [part.id, part.parent]));
  const { project: withParts, added } = addParts(project, {
    parts: fresh.map((part) => ({
      ...part,
      parent: part.parent !== null && freshIds.has(part.parent) ? part.parent : null,
      ...(isOf(part, freshId) ? { geometry: { ...part.geometry, asset: id } } : {}),
    })),
    assets: [],
  });
  const nameOf = (of: string | null) => newer.parts.find((part) => part.id === of)?.name;
  const hung = withParts.parts.map((part) => {
    const i = added.indexOf(part.id);
    const above = i < 0 ? null : (parents.get(fresh[i]!.id) ?? null);
    const under = above !== null && !freshIds.has(above) ? there.get(nameOf(above) ?? '') : undefined;
    return under === undefined ? part : { ...part, parent: under };
  });
  return { project: { ...withParts, parts: hung }, added: fresh.map(({ name }) => name) };
}

function rootOf(project: Project, part: Part): string {
  let at = part;
  while (at.parent !== null) at = partOf(project, at.parent)!;
  return at.id;
}
