import dagre from '@dagrejs/dagre';
import type { Network, NetworkNode } from '@kaizen/core';
import { groupBy } from '../ui/group-by';

/** Sizes of the drawing in pixels. */
export const LANE = 57;
export const BOX = { width: 130, height: 40 } as const;
const COLUMN = 176;
const LEFT = 20;
/** Nodes of one part in one column stand below each other by so much. */
const STEP = 46;

/** A node with where it stands, its left upper corner. */
export interface PlacedNode {
  readonly node: NetworkNode;
  readonly x: number;
  readonly y: number;
}

/** A part's lane: from where to where it goes down. */
export interface Lane {
  readonly part: string;
  readonly top: number;
  readonly height: number;
  /** Every other one is tinted. */
  readonly even: boolean;
}

export interface PlacedEdge {
  readonly from: string;
  readonly to: string;
  readonly path: string;
  /** Where it ends: the tip of its arrow. */
  readonly tip: readonly [x: number, y: number];
  /** From which height to which it goes, so that what is out of sight need not be drawn. */
  readonly top: number;
  readonly bottom: number;
}

export interface Layout {
  readonly nodes: readonly PlacedNode[];
  readonly edges: readonly PlacedEdge[];
  readonly lanes: readonly Lane[];
  readonly width: number;
  readonly height: number;
}

/**
 * A network laid out: a lane for each part, from left to right in the order in which things are computed (the ranks of dagre's
 * layout), so that every edge leads to the right.
 */
export function layOut(network: Network): Layout {
  const ranks = ranksOf(network);
  const lanes: Lane[] = [];
  const placed: PlacedNode[] = [];
  let top = 0;
  for (const [part, nodes] of groupBy(network.nodes, ({ part }) => part)) {
    const used = new Map<number, number>();
    for (const node of nodes) {
      const rank = ranks.get(node.id) ?? 0;
      const row = used.get(rank) ?? 0;
      used.set(rank, row + 1);
      placed.push({ node, x: LEFT + rank * COLUMN, y: top + (LANE - BOX.height) / 2 + row * STEP });
    }
    const height = LANE + (Math.max(1, ...used.values()) - 1) * STEP;
    lanes.push({ part, top, height, even: lanes.length % 2 === 0 });
    top += height;
  }
  const byId = new Map(placed.map((each) => [each.node.id, each]));
  const edges = network.edges.flatMap(({ from, to }): readonly PlacedEdge[] => {
    const [a, b] = [byId.get(from), byId.get(to)];
    return a && b ? [{ from, to, ...pathBetween(a, b) }] : [];
  });
  const width = LEFT * 2 + BOX.width + COLUMN * Math.max(0, ...ranks.values());
  return { nodes: placed, edges, lanes, width, height: top };
}

function ranksOf({ nodes, edges }: Network): ReadonlyMap<string, number> {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', ranker: 'longest-path', nodesep: 10, ranksep: 50 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { id } of nodes) graph.setNode(id, { width: 40, height: 20 });
  for (const { from, to } of edges) if (from !== to) graph.setEdge(from, to);
  dagre.layout(graph);
  const columns = [...new Set(nodes.map(({ id }) => Math.round((graph.node(id) as { x: number }).x)))].sort(
    (a, b) => a - b,
  );
  return new Map(
    nodes.map(({ id }) => [id, columns.indexOf(Math.round((graph.node(id) as { x: number }).x))]),
  );
}

/** From the right side of one box to the left side of another: across, up or down just before it, across. */
function pathBetween(a: PlacedNode, b: PlacedNode): Pick<PlacedEdge, 'path' | 'tip' | 'top' | 'bottom'> {
  const [x1, y1] = [a.x + BOX.width, a.y + BOX.height / 2];
  const [x2, y2] = [b.x, b.y + BOX.height / 2];
  const turn = x2 > x1 ? x2 - 18 : x1 + 14;
  return {
    path: `M${x1} ${y1}H${turn}V${y2}H${x2 - 7}`,
    tip: [x2, y2],
    top: Math.min(y1, y2),
    bottom: Math.max(y1, y2),
  };
}
