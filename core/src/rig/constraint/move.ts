import { placeOf } from '../place';
import { multiplyLinear } from '../linear';
import type { Held } from './constraint';

const pivot = new Float64Array(3);
const turned = new Float64Array(9);
const linear = new Float64Array(9);

/** Shifts a part in the world. */
export function shift(held: Held, x: number, y: number, z: number): void {
  const { world } = held;
  world[12] = world[12]! + x;
  world[13] = world[13]! + y;
  world[14] = world[14]! + z;
}

/** Multiplies a part from the left by a linear map about its pivot, which stays. */
export function turnAboutPivot(held: Held, by: Float64Array): void {
  const { world } = held;
  placeOf(pivot, world, held.pivot);
  multiplyFromLeft(held, by);
  for (let row = 0; row < 3; row++) {
    const [x, y, z] = held.pivot;
    world[12 + row] = pivot[row]! - (world[row]! * x + world[4 + row]! * y + world[8 + row]! * z);
  }
}

/** Multiplies a part's axes from the left; the translation is left as it is. */
export function multiplyFromLeft(held: Held, by: Float64Array): void {
  const { world, axes } = held;
  for (let column = 0; column < 3; column++)
    for (let row = 0; row < 3; row++) linear[column * 3 + row] = world[column * 4 + row]!;
  multiplyLinear(turned, by, linear);
  for (let column = 0; column < 3; column++)
    for (let row = 0; row < 3; row++) world[column * 4 + row] = turned[column * 3 + row]!;
  multiplyLinear(turned, by, axes);
  axes.set(turned);
}
