import {
  FrontSide,
  Matrix4,
  Mesh,
  Ray,
  Raycaster,
  Sphere,
  type BufferGeometry,
  type Intersection,
  type Vector3,
} from 'three';
import { MeshBVH } from 'three-mesh-bvh';

/** Where a ray meets a solid first. */
export interface RayHit {
  readonly distance: number;
  readonly point: Vector3;
}

const trees = new WeakMap<BufferGeometry, MeshBVH>();
const sphere = new Sphere();
const world = new Matrix4();
const inverse = new Matrix4();
const local = new Ray();
const probe = new Mesh();
const caster = new Raycaster();

/**
 * Where a ray in the world meets a solid that a matrix places, from outside; null where it misses. The triangles are found by a tree
 * of boxes made at the first ray that comes near (a bounding volume hierarchy), so that a million of them cost like a few.
 */
export function rayOnSolid(solid: BufferGeometry, placement: Float64Array, ray: Ray): RayHit | null {
  if (!solid.boundingSphere) solid.computeBoundingSphere();
  world.fromArray(placement);
  if (!ray.intersectsSphere(sphere.copy(solid.boundingSphere!).applyMatrix4(world))) return null;
  if (solid.userData['deforms'] === true) return plainly(solid, ray);
  let tree = trees.get(solid);
  if (!tree) trees.set(solid, (tree = new MeshBVH(solid, { indirect: true })));
  local.copy(ray).applyMatrix4(inverse.copy(world).invert());
  const hit = tree.raycastFirst(local, FrontSide);
  if (!hit) return null;
  const point = hit.point.applyMatrix4(world);
  return { distance: ray.origin.distanceTo(point), point };
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
