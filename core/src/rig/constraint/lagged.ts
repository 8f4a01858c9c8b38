import {
  NEVER_SETTLES,
  NOT_FINITE,
  object,
  orNull,
  otherwise,
  SPRING_FIELDS,
  type Field,
  type Spring,
  type Vec3,
} from '../../project';
import { Follower } from '../../law';
import { placeOf } from '../place';
import type { PoseReader } from './constraint';

/** The field of a lag: null, or the spring that the target's place hangs on. */
export const LAG: Field = otherwise(orNull(object(SPRING_FIELDS)), null);

const matrix = new Float64Array(16);
const speeds = new Float64Array(3);

/**
 * Writes the place of a target's pivot, with a lag its follower's: the law of the driver `follow` on each coordinate. Where that
 * fails the target's own place counts. Gives 0 or why it fails.
 */
export function laggedPlace(
  out: Float64Array,
  read: PoseReader,
  target: number,
  pivot: Vec3,
  constraint: { readonly lag: Spring | null },
): number {
  const { lag } = constraint;
  if (lag) {
    const follower = read.kept(
      constraint,
      () =>
        new Follower(lag, 3, read.secondsPerFrame, (frame, place) => {
          read.worldAt(target, frame, matrix);
          placeOf(place, matrix, pivot);
        }),
    );
    const settles = follower.at(read.frame, out, speeds);
    if (settles && Number.isFinite(out[0]! + out[1]! + out[2]!)) return 0;
    placeOf(out, read.worldOf(target), pivot);
    return settles ? NOT_FINITE : NEVER_SETTLES;
  }
  placeOf(out, read.worldOf(target), pivot);
  return 0;
}
