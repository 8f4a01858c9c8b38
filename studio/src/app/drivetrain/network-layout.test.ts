import type { Network } from '@kaizen/core';
import { BOX, LANE, layOut } from './network-layout';

const channel = (part: string, name: string) => ({
  id: `${part}/${name}`,
  kind: 'channel' as const,
  part,
  channel: `${part}/${name}`,
  driven: false,
});

describe('the layout of a network', () => {
  const network: Network = {
    nodes: [channel('drum', 'a'), channel('drum', 'b'), channel('skip', 'c'), channel('wheel', 'd')],
    edges: [
      { from: 'drum/a', to: 'skip/c' },
      { from: 'drum/b', to: 'skip/c' },
      { from: 'skip/c', to: 'wheel/d' },
    ],
  };

  it('gives each part a lane as high as what stands in it, in order', () => {
    const { lanes } = layOut(network);
    expect(lanes.map(({ part }) => part)).toEqual(['drum', 'skip', 'wheel']);
    expect(lanes[0]!.height).toBeGreaterThan(LANE);
    expect(lanes[1]).toEqual({ part: 'skip', top: lanes[0]!.height, height: LANE, even: false });
  });

  it('leads every edge to the right, and lets no two boxes lie on each other', () => {
    const { nodes, edges } = layOut(network);
    const at = new Map(nodes.map((each) => [each.node.id, each]));
    for (const { from, to } of edges) expect(at.get(from)!.x + BOX.width).toBeLessThan(at.get(to)!.x);
    for (const a of nodes)
      for (const b of nodes)
        if (a !== b) expect(Math.abs(a.x - b.x) >= BOX.width || Math.abs(a.y - b.y) >= BOX.height).toBe(true);
  });

  it('of five hundred nodes takes no longer than a user waits for', () => {
    const nodes = Array.from({ length: 500 }, (_, i) => channel(`part-${i >> 1}`, String(i % 2)));
    const edges = nodes.slice(1).map(({ id }, i) => ({ from: nodes[Math.floor(i / 3)]!.id, to: id }));
    const laid = layOut({ nodes, edges });
    expect(laid.nodes).toHaveLength(500);
    expect(laid.lanes).toHaveLength(250);
  });
});
