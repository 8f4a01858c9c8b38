import { partOf, type Project, type Vec3 } from '../project';
import type { Program } from './program';
import { fromWorld, inWorld } from '../rig';

/** The finished world matrix of a part at a frame, column-major. */
export function worldAt(program: Program, id: string, frame: number): Float64Array {
  const out = new Float64Array(16);
  program.worldMatrix(program.structure.partIndex.get(id)!, frame, out);
  return out;
}

/** Where a part's pivot is in the world at a frame. */
export function pivotAt(program: Program, project: Project, id: string, frame: number): Vec3 {
  return inWorld(worldAt(program, id, frame), partOf(project, id)!.pivot);
}

/** Where a place of the world is in the space of a part, or of the scene; null where the part has no inside. */
export function seenFrom(program: Program, id: string | null, frame: number, place: Vec3): Vec3 | null {
  return id === null ? place : fromWorld(worldAt(program, id, frame), place);
}

export function distance(a: Vec3, b: Vec3): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}
