import { shapeMesh } from '@kaizen/core';
import { BufferGeometry } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { meshWork } from './mesh-work';

describe('the worker of meshes', () => {
  it('finds edges and trees of meshes with indices, without, and without anything', () => {
    const { positions, indices } = shapeMesh({ shape: 'box', size: [1, 2, 3] });
    const corners = Array.from(indices);
    const apart = Float32Array.from(corners.flatMap((i) => Array.from(positions.slice(i * 3, i * 3 + 3))));
    const [indexed, plain, empty] = meshWork.prepare([
      { positions: Float32Array.from(positions), indices: Uint32Array.from(indices) },
      { positions: apart, indices: null },
      { positions: new Float32Array(0), indices: null },
    ]);
    expect(indexed!.edges.indices).toHaveLength(12 * 6);
    expect(plain!.edges.indices).toHaveLength(12 * 6);
    expect([empty!.edges.indices.length, empty!.edges.closed]).toEqual([0, true]);
    for (const { tree } of [indexed!, plain!, empty!])
      expect(() => MeshBVH.deserialize(tree, new BufferGeometry(), { setIndex: false })).not.toThrow();
  });
});
