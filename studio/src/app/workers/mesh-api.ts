import type { MeshEdges } from '@kaizen/core';
import type { SerializedBVH } from 'three-mesh-bvh';

/** A mesh of triangles: three numbers a vertex, and its triangles' corners; without them every three vertices are one. */
export interface MeshNumbers {
  readonly positions: Float32Array;
  readonly indices: Uint16Array | Uint32Array | null;
}

/** A mesh whose numbers are put together when its turn comes: until then they need not lie in memory twice. */
export interface WaitingMesh {
  readonly vertices: number;
  readonly numbers: () => MeshNumbers;
}

/** What is found out about a mesh before it can be drawn in ink and picked. */
export interface PreparedMesh {
  readonly edges: MeshEdges;
  /** The tree of boxes around its triangles, by which a ray finds the one that it meets. */
  readonly tree: SerializedBVH;
}

/** Work on the meshes of models, of which a million triangles take seconds. */
export interface MeshApi {
  prepare(meshes: readonly MeshNumbers[]): readonly PreparedMesh[];
}
