import { Mesh, type Intersection, type Raycaster, type Vector3 } from 'three';
import type { DrawnPart } from './drawn-part';

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
  const probe = new Mesh();
  let nearest = Infinity;
  let found: PartHit | null = null;
  for (const drawn of parts) {
    if (drawn.hidden) continue;
    const hits: Intersection[] = [];
    for (const { batch } of drawn.solids) {
      probe.geometry = batch.drawn.solid;
      probe.matrixWorld.fromArray(drawn.matrix);
      probe.raycast(ray, hits);
    }
    if (lines) drawn.lines?.object.raycast(ray, hits);
    for (const { distance, point } of hits)
      if (distance < nearest) [nearest, found] = [distance, { part: drawn.part.id, place: point }];
  }
  return found;
}
