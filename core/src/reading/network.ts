import {
  channelName,
  partOf,
  partProperties,
  splitChannel,
  type Driver,
  type Constraint,
  type Interlock,
  type Project,
} from '../project';
import { driverReads } from '../drive';
import { constraintReads, withDescendants } from '../rig';

/**
 * A piece of the network: a channel, a driver or constraint that acts, an interlock of the clip that plays, or a part as a whole,
 * whose place is read.
 */
export type NetworkNode =
  | {
      readonly id: string;
      readonly kind: 'channel';
      readonly part: string;
      readonly channel: string;
      readonly driven: boolean;
    }
  | { readonly id: string; readonly kind: 'driver'; readonly part: string; readonly driver: Driver }
  | {
      readonly id: string;
      readonly kind: 'constraint';
      readonly part: string;
      readonly constraint: Constraint;
    }
  | { readonly id: string; readonly kind: 'interlock'; readonly part: string; readonly lock: Interlock }
  | { readonly id: string; readonly kind: 'place'; readonly part: string }
  /** All pieces of a part and of what rides on it as one, with their number. */
  | { readonly id: string; readonly kind: 'subtree'; readonly part: string; readonly count: number };

export interface NetworkEdge {
  readonly from: string;
  readonly to: string;
}

/** What drives and holds what in a project: nodes in the order of its parts, and edges from what is read to what reads it. */
export interface Network {
  readonly nodes: readonly NetworkNode[];
  readonly edges: readonly NetworkEdge[];
}

/** All drivers, constraints and interlocks of a project as a network; parts that have none, and that nothing reads, are not in it. */
export function networkOf(project: Project): Network {
  const nodes = new Map<string, NetworkNode>();
  const edges: NetworkEdge[] = [];
  const targets = new Set(project.drivers.filter(({ muted }) => !muted).map(({ target }) => target));
  const channel = (name: string): string => {
    const { part } = splitChannel(name);
    const id = `channel ${name}`;
    if (!nodes.has(id))
      nodes.set(id, { id, kind: 'channel', part, channel: name, driven: targets.has(name) });
    return id;
  };
  const place = (part: string): string => {
    const id = `place ${part}`;
    if (!nodes.has(id)) nodes.set(id, { id, kind: 'place', part });
    return id;
  };
  const read = (names: string, id: string) =>
    names === 'channel' ? channel(id) : names === 'part' ? place(id) : null;
  for (const driver of project.drivers) {
    const id = `driver ${driver.id}`;
    nodes.set(id, { id, kind: 'driver', part: splitChannel(driver.target).part, driver });
    for (const naming of driverReads(driver)) {
      const from = read(naming.names, naming.id);
      if (from !== null) edges.push({ from, to: id });
    }
    edges.push({ from: id, to: channel(driver.target) });
  }
  for (const constraint of project.constraints) {
    const id = `constraint ${constraint.id}`;
    nodes.set(id, { id, kind: 'constraint', part: constraint.part, constraint });
    for (const naming of constraintReads(constraint)) {
      const from = naming.id === constraint.part ? null : read(naming.names, naming.id);
      if (from !== null) edges.push({ from, to: id });
    }
  }
  for (const lock of project.interlocks) {
    if (lock.clip !== project.activeClip) continue;
    const id = `interlock ${lock.id}`;
    nodes.set(id, { id, kind: 'interlock', part: splitChannel(lock.channel).part, lock });
    edges.push({ from: channel(lock.after.channel), to: id }, { from: id, to: channel(lock.channel) });
  }
  withinParts(project, nodes, edges);
  const order = new Map(project.parts.map(({ id }, i) => [id, i]));
  const inOrder = [...nodes.values()].sort((a, b) => order.get(a.part)! - order.get(b.part)!);
  return { nodes: inOrder, edges };
}

/** A part whose place is read stands after the channels of its own that place it, and after what holds it. */
function withinParts(project: Project, nodes: ReadonlyMap<string, NetworkNode>, edges: NetworkEdge[]): void {
  for (const node of nodes.values()) {
    if (node.kind !== 'place') continue;
    for (const { property } of partOf(project, node.part)
      ? partProperties(partOf(project, node.part)!)
      : []) {
      const from = `channel ${channelName(node.part, property)}`;
      const places = /^(translate|rotate|scale)\./.test(property);
      if (places && nodes.has(from)) edges.push({ from, to: node.id });
    }
    for (const other of nodes.values())
      if (other.kind === 'constraint' && other.part === node.part)
        edges.push({ from: other.id, to: node.id });
  }
}

/** Of a network what leads to a part with all that rides on it (`up`), what it leads to (`down`), or both. */
export function networkAbout(
  project: Project,
  network: Network,
  part: string,
  way: 'up' | 'down' | 'both',
): Network {
  const own = new Set(withDescendants(project.parts, part));
  const start = network.nodes.filter((node) => own.has(node.part)).map(({ id }) => id);
  const kept = new Set(start);
  const walk = (from: 'from' | 'to', to: 'from' | 'to') => {
    const next = new Map<string, string[]>();
    for (const edge of network.edges) next.set(edge[from], [...(next.get(edge[from]) ?? []), edge[to]]);
    const queue = [...start];
    const seen = new Set(start);
    for (let id = queue.pop(); id !== undefined; id = queue.pop())
      for (const other of next.get(id) ?? [])
        if (!seen.has(other)) {
          seen.add(other);
          kept.add(other);
          queue.push(other);
        }
  };
  if (way !== 'down') walk('to', 'from');
  if (way !== 'up') walk('from', 'to');
  return {
    nodes: network.nodes.filter(({ id }) => kept.has(id)),
    edges: network.edges.filter(({ from, to }) => kept.has(from) && kept.has(to)),
  };
}

/**
 * A network with the subtrees of some parts folded: what belongs to such a part, or to one that rides on it, is one piece, joined to
 * the rest by the edges that leave it. Of folded parts that ride on each other the uppermost counts.
 */
export function foldedNetwork(project: Project, network: Network, folded: ReadonlySet<string>): Network {
  if (folded.size === 0) return network;
  const parents = new Map(project.parts.map(({ id, parent }) => [id, parent]));
  const roots = new Map<string, string | null>();
  const rootOf = (part: string): string | null => {
    let root = roots.get(part);
    if (root === undefined) {
      const parent = parents.get(part) ?? null;
      root = (parent === null ? null : rootOf(parent)) ?? (folded.has(part) ? part : null);
      roots.set(part, root);
    }
    return root;
  };
  const counts = new Map<string, number>();
  for (const { part } of network.nodes) {
    const root = rootOf(part);
    if (root !== null) counts.set(root, (counts.get(root) ?? 0) + 1);
  }
  const nowOf = new Map<string, string>();
  const nodes: NetworkNode[] = [];
  const made = new Set<string>();
  for (const node of network.nodes) {
    const root = rootOf(node.part);
    if (root === null) nodes.push(node);
    else {
      const id = `subtree ${root}`;
      nowOf.set(node.id, id);
      if (!made.has(id)) nodes.push({ id, kind: 'subtree', part: root, count: counts.get(root)! });
      made.add(id);
    }
  }
  const seen = new Set<string>();
  const edges = network.edges.flatMap((edge) => {
    const from = nowOf.get(edge.from) ?? edge.from;
    const to = nowOf.get(edge.to) ?? edge.to;
    const key = `${from} → ${to}`;
    if (from === to || seen.has(key)) return [];
    seen.add(key);
    return from === edge.from && to === edge.to ? [edge] : [{ from, to }];
  });
  const order = new Map(project.parts.map(({ id }, i) => [id, i]));
  return { nodes: nodes.sort((a, b) => order.get(a.part)! - order.get(b.part)!), edges };
}
