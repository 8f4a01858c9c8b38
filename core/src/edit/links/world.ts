import { mat4 } from 'gl-matrix';
import { partOf, type Project, type Vec3 } from '../../project';
import type { Program } from '../../evaluate';
import { placeOf } from '../../rig';

/** The finished world matrix of a part at a frame, column-major. */
export function worldAt(program: Program, id: string, frame: number): Float64Array {
  const out = new Float64Array(16);
  program.worldMatrix(program.structure.partIndex.get(id)!, frame, out);
  return out;
}

/** Where a part's pivot is in the world at a frame. */
export function pivotAt(program: Program, project: Project, id: string, frame: number): Vec3 {
  return moved(worldAt(program, id, frame), partOf(project, id)!.pivot);
}

/** Where a place of the world is in the space of a part, or of the scene; null where the part has no inside. */
export function seenFrom(program: Program, id: string | null, frame: number, place: Vec3): Vec3 | null {
  if (id === null) return place;
  const inverse = mat4.invert(new Float64Array(16), worldAt(program, id, frame));
  return inverse && moved(inverse as unknown as Float64Array, place);
}

function moved(matrix: Float64Array, place: Vec3): Vec3 {
  const out = new Float64Array(3);
  placeOf(out, matrix, place);
  return [out[0]!, out[1]!, out[2]!];
}

export function distance(a: Vec3, b: Vec3): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}
