import type { GltfJson } from './document';

/** How a part names a node of its asset: by the node's name where that is unique, else `#` and its number. */
export function assetNodeName(json: GltfJson, index: number): string {
  const nodes = json.nodes ?? [];
  const name = nodes[index]?.name;
  const unique = name !== undefined && name !== '' && nodes.filter((node) => node.name === name).length === 1;
  return unique && !name.startsWith('#') ? name : `#${index}`;
}

export function findAssetNode(json: GltfJson, name: string): number | null {
  const nodes = json.nodes ?? [];
  const numbered = /^#(\d+)$/.exec(name);
  const index = numbered ? Number(numbered[1]) : nodes.findIndex((node) => node.name === name);
  return index >= 0 && index < nodes.length ? index : null;
}
