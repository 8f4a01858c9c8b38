import {
  FrontSide,
  Matrix4,
  Mesh,
  Ray,
  Raycaster,
  type BufferGeometry,
  type Intersection,
  type Vector3,
} from 'three';
import { MeshBVH, type SerializedBVH } from 'three-mesh-bvh';

/** Where a ray meets a solid first. */
export interface RayHit {
  readonly distance: number;
  readonly point: Vector3;
}

const trees = new WeakMap<BufferGeometry, MeshBVH>();
const world = new Matrix4();
const inverse = new Matrix4();
const local = new Ray();
const probe = new Mesh();
const caster = new Raycaster();

/**
 * The least distance along a ray at which it can meet a solid that a matrix places, by the sphere around it, in metres; Infinity where
 * it passes by.
 */
export function nearestPossible(solid: BufferGeometry, m: Float64Array, { origin, direction }: Ray): number {
  if (!solid.boundingSphere) solid.computeBoundingSphere();
  const { center, radius } = solid.boundingSphere!;
  const x = m[0]! * center.x + m[4]! * center.y + m[8]! * center.z + m[12]! - origin.x;
  const y = m[1]! * center.x + m[5]! * center.y + m[9]! * center.z + m[13]! - origin.y;
  const z = m[2]! * center.x + m[6]! * center.y + m[10]! * center.z + m[14]! - origin.z;
  const along = x * direction.x + y * direction.y + z * direction.z;
  const apart = x * x + y * y + z * z - along * along;
  const largest = Math.max(lengthSquared(m, 0), lengthSquared(m, 4), lengthSquared(m, 8));
  const reach = radius * Math.sqrt(largest);
  return apart > reach * reach || along < -reach ? Infinity : Math.max(0, along - reach);
}

function lengthSquared(m: Float64Array, at: number): number {
  return m[at]! * m[at]! + m[at + 1]! * m[at + 1]! + m[at + 2]! * m[at + 2]!;
}

/**
 * Where a ray in the world meets a solid that a matrix places, from outside; null where it misses. The triangles are found by a tree
 * of boxes (a bounding volume hierarchy), so that a million of them cost like a few: of a shape it is made at the first ray that comes
 * near; a mesh whose tree is awaited is met by no ray until it is there.
 */
export function rayOnSolid(solid: BufferGeometry, placement: Float64Array, ray: Ray): RayHit | null {
  world.fromArray(placement);
  if (solid.userData['deforms'] === true) return plainly(solid, ray);
  if (solid.userData['awaited'] === true) return null;
  const tree = treeOf(solid);
  local.copy(ray).applyMatrix4(inverse.copy(world).invert());
  const hit = tree.raycastFirst(local, FrontSide);
  if (!hit) return null;
  const point = hit.point.applyMatrix4(world);
  return { distance: ray.origin.distanceTo(point), point };
}

/** Takes over the tree of a solid that was made elsewhere. */
export function takeTree(solid: BufferGeometry, tree: SerializedBVH): void {
  trees.set(solid, MeshBVH.deserialize(tree, solid, { setIndex: false }));
}

function treeOf(solid: BufferGeometry): MeshBVH {
  let tree = trees.get(solid);
  if (!tree) trees.set(solid, (tree = new MeshBVH(solid, { indirect: true })));
  return tree;
}

/** Triangle by triangle, for what changes its shape all the time. */
function plainly(solid: BufferGeometry, ray: Ray): RayHit | null {
  probe.geometry = solid;
  probe.matrixWorld.copy(world);
  caster.ray.copy(ray);
  const hits: Intersection[] = [];
  probe.raycast(caster, hits);
  return hits.reduce<RayHit | null>(
    (near, hit) => (near && near.distance <= hit.distance ? near : hit),
    null,
  );
}
