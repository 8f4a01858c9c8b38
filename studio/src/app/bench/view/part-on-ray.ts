import type { BufferGeometry, Intersection, Raycaster, Vector3 } from 'three';
import type { DrawnPart } from './drawn-part';
import { nearestPossible, rayOnSolid } from './solids/ray-on-solid';

/** A part that a ray meets, and the place in the world where it does. */
export interface PartHit {
  readonly part: string;
  readonly place: Vector3;
}

/** A solid whose sphere a ray meets, not nearer than so many metres. */
interface Candidate {
  readonly drawn: DrawnPart;
  readonly solid: BufferGeometry;
  readonly near: number;
}

/**
 * The nearest of some parts that a ray meets; null where it meets none. Hidden ones are not there. Solids are tried from the nearest
 * on, and only until none of those left can be nearer than what was found.
 */
export function partOnRay(
  parts: Iterable<DrawnPart>,
  ray: Raycaster,
  { lines }: { readonly lines: boolean },
): PartHit | null {
  const candidates: Candidate[] = [];
  let nearest = Infinity;
  let found: PartHit | null = null;
  for (const drawn of parts) {
    if (drawn.hidden) continue;
    for (const { batch } of drawn.solids) {
      const { solid } = batch.drawn;
      const near = nearestPossible(solid, drawn.placement, ray.ray);
      if (near < Infinity) candidates.push({ drawn, solid, near });
    }
    if (!lines || !drawn.lines) continue;
    const hits: Intersection[] = [];
    drawn.lines.object.raycast(ray, hits);
    for (const { distance, point } of hits)
      if (distance < nearest) [nearest, found] = [distance, { part: drawn.part.id, place: point }];
  }
  candidates.sort((a, b) => a.near - b.near);
  for (const { drawn, solid, near } of candidates) {
    if (near >= nearest) break;
    const hit = rayOnSolid(solid, drawn.placement, ray.ray);
    if (hit && hit.distance < nearest)
      [nearest, found] = [hit.distance, { part: drawn.part.id, place: hit.point }];
  }
  return found;
}
