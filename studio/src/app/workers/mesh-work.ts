import { transfer } from 'comlink';
import { BufferAttribute, BufferGeometry } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { meshEdges } from '@kaizen/core';
import type { MeshApi, MeshNumbers, PreparedMesh } from './mesh-api';

/** What the worker of meshes does. */
export const meshWork: MeshApi = {
  prepare: (meshes) => {
    const prepared = meshes.map(preparedMesh);
    return transfer(prepared, prepared.flatMap(buffersOf));
  },
};

/** The edges of a mesh, and the tree by which rays find its triangles. */
export function preparedMesh({ positions, indices }: MeshNumbers): PreparedMesh {
  const solid = new BufferGeometry();
  solid.setAttribute('position', new BufferAttribute(positions, 3));
  if (indices) solid.setIndex(new BufferAttribute(indices, 1));
  const tree = MeshBVH.serialize(new MeshBVH(solid, { indirect: true }), { cloneBuffers: false });
  return { edges: meshEdges(positions, indices), tree: { ...tree, index: null } };
}

function buffersOf({ edges, tree }: PreparedMesh): ArrayBuffer[] {
  const { start, end, left, right, corner, starts, ends, indices } = edges;
  const lists: (ArrayBufferView | null)[] = [
    start,
    end,
    left,
    right,
    corner,
    starts,
    ends,
    indices,
    tree.indirectBuffer,
  ];
  const roots: readonly ArrayBuffer[] = tree.roots;
  return [...lists.flatMap((list) => (list ? [list.buffer as ArrayBuffer] : [])), ...roots];
}
