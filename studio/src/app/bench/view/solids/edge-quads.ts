import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { meshEdges, type MeshEdges } from '@kaizen/core';
import { numbersOf } from './numbers-of';

/** The edges of a solid as quads that a shader widens to lines, see `layEdges`. */
export function edgeQuads(solid: BufferGeometry): BufferGeometry {
  const quads = new BufferGeometry();
  layEdges(quads, meshEdges(numbersOf(solid.getAttribute('position'), 3), indicesOf(solid)));
  return quads;
}

/** The indices of a solid's triangles; null where every three of its vertices are one. */
export function indicesOf(solid: BufferGeometry): ArrayLike<number> | null {
  return solid.getIndex()?.array ?? null;
}

/**
 * Puts edges into a geometry: `position` and `end` of each edge, the normals `left` and `right` of its faces, and `corner`.
 * `userData.closed` tells whether every edge has two faces, `userData.starts` and `userData.ends` which vertex of the solid each end is.
 */
export function layEdges(quads: BufferGeometry, edges: MeshEdges): void {
  const { start, end, left, right, corner, indices, closed, starts, ends } = edges;
  for (const [name, numbers] of Object.entries({ position: start, end, left, right, corner }))
    quads.setAttribute(name, new BufferAttribute(numbers, 3));
  quads.setIndex(new BufferAttribute(indices, 1));
  quads.userData = { closed, starts, ends };
}

/** The ends of all crease edges, two points a line, for what is drawn as plain lines. */
export function creaseLines(quads: BufferGeometry): BufferGeometry {
  const [start, end, corner] = ['position', 'end', 'corner'].map((name) => quads.getAttribute(name));
  const points: Vector3[] = [];
  for (let i = 0; i < (corner?.count ?? 0); i += 4) {
    if (corner!.getZ(i) === 0) continue;
    points.push(new Vector3().fromBufferAttribute(start!, i), new Vector3().fromBufferAttribute(end!, i));
  }
  return new BufferGeometry().setFromPoints(points);
}
