import { Mesh, type Intersection, type Raycaster } from 'three';
import type { DrawnPart } from './drawn-part';

/** The nearest of some parts that a ray meets, by its id; null where it meets none. Hidden ones are not there. */
export function partOnRay(
  parts: Iterable<DrawnPart>,
  ray: Raycaster,
  { lines }: { readonly lines: boolean },
): string | null {
  const probe = new Mesh();
  let nearest = Infinity;
  let found: string | null = null;
  for (const drawn of parts) {
    if (drawn.hidden) continue;
    const hits: Intersection[] = [];
    for (const { batch } of drawn.solids) {
      probe.geometry = batch.drawn.solid;
      probe.matrixWorld.fromArray(drawn.matrix);
      probe.raycast(ray, hits);
    }
    if (lines) drawn.lines?.object.raycast(ray, hits);
    for (const { distance } of hits) if (distance < nearest) [nearest, found] = [distance, drawn.part.id];
  }
  return found;
}
