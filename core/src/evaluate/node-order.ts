import type { Structure } from './structure';

/** Nodes in order, and how many looks at other frames stand on each other; or the ring that has no order. */
export type Sorted =
  | { readonly ok: true; readonly order: Int32Array; readonly lateDepth: number }
  | { readonly ok: false; readonly ring: readonly number[] };

const NOTHING: readonly number[] = [];

/**
 * Nodes, the parts and from `partRoom` on to `count` all others, in an order in which each comes after all it reads, or the ring that makes that impossible. Without a call stack of its
 * own: chains may be as long as a project.
 */
export function sortNodes(
  count: number,
  partRoom: number,
  structure: Structure,
  reads: ReadonlyMap<number, readonly number[]>,
  late: ReadonlyMap<number, readonly number[]>,
): Sorted {
  const { parents } = structure.hierarchy;
  const state = new Uint8Array(count);
  const lateDepths = late.size > 0 ? new Int32Array(count) : null;
  const order = new Int32Array(structure.parts.length + count - partRoom);
  let placed = 0;
  let lateDepth = 0;
  const path: number[] = [];
  const nextOf = new Int32Array(count);
  const readOf = (node: number, i: number): number => {
    let at = i;
    if (node < partRoom) {
      const parent = parents[node]!;
      if (parent >= 0 && at-- === 0) return parent;
    }
    const list = reads.get(node) ?? NOTHING;
    if (at < list.length) return list[at]!;
    return (late.get(node) ?? NOTHING)[at - list.length] ?? -1;
  };
  const roots = [...structure.hierarchy.order];
  for (let node = partRoom; node < count; node++) roots.push(node);
  for (const root of roots) {
    if (state[root] !== 0) continue;
    state[root] = OPEN;
    path.push(root);
    while (path.length > 0) {
      const node = path[path.length - 1]!;
      const next = readOf(node, nextOf[node]!++);
      if (next < 0) {
        state[node] = DONE;
        order[placed++] = node;
        path.pop();
        if (lateDepths) lateDepth = Math.max(lateDepth, (lateDepths[node] = depthOf(node)));
      } else if (state[next] === OPEN) {
        const from = path.indexOf(next);
        return { ok: false, ring: [...path.slice(from), next].reverse() };
      } else if (state[next] === 0) {
        state[next] = OPEN;
        path.push(next);
      }
    }
  }
  return { ok: true, order, lateDepth };

  function depthOf(node: number): number {
    let depth = 0;
    if (node < partRoom && parents[node]! >= 0) depth = lateDepths![parents[node]!]!;
    for (const each of reads.get(node) ?? NOTHING) depth = Math.max(depth, lateDepths![each]!);
    for (const each of late.get(node) ?? NOTHING) depth = Math.max(depth, lateDepths![each]! + 1);
    return depth;
  }
}
const OPEN = 1;
const DONE = 2;
