import type { GltfJson } from './document';

/** The nodes of a model by name: the first that bears it, and whether others do too. A model has thousands, and each is asked for. */
type NodeIndex = ReadonlyMap<string, { readonly first: number; readonly isOnly: boolean }>;

const indices = new WeakMap<readonly unknown[], NodeIndex>();

function indexOf(nodes: NonNullable<GltfJson['nodes']>): NodeIndex {
  const known = indices.get(nodes);
  if (known) return known;
  const index = new Map<string, { first: number; isOnly: boolean }>();
  nodes.forEach(({ name }, i) => {
    const before = name === undefined ? undefined : index.get(name);
    if (before) before.isOnly = false;
    else if (name !== undefined) index.set(name, { first: i, isOnly: true });
  });
  indices.set(nodes, index);
  return index;
}

/** How a part names a node of its asset: by the node's name where that is unique, else `#` and its number. */
export function assetNodeName(json: GltfJson, index: number): string {
  const nodes = json.nodes ?? [];
  const name = nodes[index]?.name;
  const isUnique = name !== undefined && name !== '' && indexOf(nodes).get(name)?.isOnly === true;
  return isUnique && !name.startsWith('#') ? name : `#${index}`;
}

export function findAssetNode(json: GltfJson, name: string): number | null {
  const nodes = json.nodes ?? [];
  const numbered = /^#(\d+)$/.exec(name);
  const index = numbered ? Number(numbered[1]) : (indexOf(nodes).get(name)?.first ?? -1);
  return index >= 0 && index < nodes.length ? index : null;
}
