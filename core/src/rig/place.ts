import type { SignedAxis, Vec3 } from '../project';
import { invertAffine } from './affine';

/** Writes where a point of a part's own space stands in the world. */
export function placeOf(out: Float64Array, world: Float64Array, point: Vec3): void {
  const [x, y, z] = point;
  for (let row = 0; row < 3; row++)
    out[row] = world[row]! * x + world[4 + row]! * y + world[8 + row]! * z + world[12 + row]!;
}

/** Where a point of a part's own space stands in the world. */
export function inWorld(world: Float64Array, point: Vec3): Vec3 {
  const out = new Float64Array(3);
  placeOf(out, world, point);
  return [out[0]!, out[1]!, out[2]!];
}

/** Where a place of the world is in a part's own space; null where the part has no size in some direction. */
export function fromWorld(world: Float64Array, place: Vec3): Vec3 | null {
  const inverse = new Float64Array(16);
  invertAffine(inverse, world);
  const found = inWorld(inverse, place);
  return found.every(Number.isFinite) ? found : null;
}

/** The number of an axis, x 0, y 1, z 2, and its sign. */
export function axisNumber(axis: SignedAxis): { readonly number: number; readonly sign: 1 | -1 } {
  return { number: 'xyz'.indexOf(axis.at(-1)!), sign: axis.startsWith('-') ? -1 : 1 };
}

/** Writes the unit direction of an axis of a matrix; false where it has no length. */
export function axisOf(out: Float64Array, world: Float64Array, axis: SignedAxis): boolean {
  const { number, sign } = axisNumber(axis);
  const at = number * 4;
  const length = sign * Math.hypot(world[at]!, world[at + 1]!, world[at + 2]!);
  if (length === 0 || !Number.isFinite(length)) return false;
  for (let row = 0; row < 3; row++) out[row] = world[at + row]! / length;
  return true;
}
