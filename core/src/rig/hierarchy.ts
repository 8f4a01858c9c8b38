import type { Part } from '../project';

/** Parts in an order in which every parent comes before its children, as indices into `parts`, with each one's parent index or −1. */
export interface Hierarchy {
  readonly order: Int32Array;
  readonly parents: Int32Array;
}

export function hierarchy(parts: readonly Part[]): Hierarchy {
  const index = new Map(parts.map((part, i) => [part.id, i]));
  const parents = Int32Array.from(parts, (part) =>
    part.parent === null ? -1 : (index.get(part.parent) ?? -1),
  );
  const placed = new Uint8Array(parts.length);
  const order: number[] = [];
  for (let i = 0; i < parts.length; i++) {
    const chain: number[] = [];
    for (let at = i; at >= 0 && !placed[at]; at = parents[at]!) {
      placed[at] = 1;
      chain.push(at);
    }
    while (chain.length > 0) order.push(chain.pop()!);
  }
  return { order: Int32Array.from(order), parents };
}

/** Ids of a part and everything below it, the part first. */
export function withDescendants(parts: readonly Part[], id: string): string[] {
  const children = new Map<string, string[]>();
  for (const part of parts) {
    if (part.parent !== null) children.set(part.parent, [...(children.get(part.parent) ?? []), part.id]);
  }
  const found = [id];
  for (let i = 0; i < found.length; i++) found.push(...(children.get(found[i]!) ?? []));
  return found;
}
