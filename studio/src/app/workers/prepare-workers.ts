import { exportSpare } from './export.client';
import { hashSpare } from './hash.client';
import { meshSpare } from './mesh.client';
import { readSpare } from './read.client';
import { shapeSpare } from './shape.client';

/** Opens a worker of each kind ahead of its use. */
export function prepareWorkers(): void {
  for (const spare of [readSpare, hashSpare, exportSpare, shapeSpare, meshSpare]) spare.prepare();
}
