import type { Intersection, Raycaster, Vector3 } from 'three';
import type { DrawnPart } from './drawn-part';
import { rayOnSolid } from './solids/ray-on-solid';

/** A part that a ray meets, and the place in the world where it does. */
export interface PartHit {
  readonly part: string;
  readonly place: Vector3;
}

/** The nearest of some parts that a ray meets; null where it meets none. Hidden ones are not there. */
export function partOnRay(
  parts: Iterable<DrawnPart>,
  ray: Raycaster,
  { lines }: { readonly lines: boolean },
): PartHit | null {
  let nearest = Infinity;
  let found: PartHit | null = null;
  for (const drawn of parts) {
    if (drawn.hidden) continue;
    const hits: Pick<Intersection, 'distance' | 'point'>[] = [];
    for (const { batch } of drawn.solids) {
      const hit = rayOnSolid(batch.drawn.solid, drawn.placement, ray.ray);
      if (hit) hits.push(hit);
    }
    if (lines) drawn.lines?.object.raycast(ray, hits as Intersection[]);
    for (const { distance, point } of hits)
      if (distance < nearest) [nearest, found] = [distance, { part: drawn.part.id, place: point }];
  }
  return found;
}
