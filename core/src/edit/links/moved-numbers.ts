import { mat4 } from 'gl-matrix';
import type { Part, Vec3 } from '../../project';
import type { Program } from '../../evaluate';
import { matrixOf, transformAt, transformOf, type Transform } from './transform-motion';

/** A part's numbers over some frames, before and after its matrix was multiplied from the left. */
export interface Moved {
  readonly first: number;
  readonly before: readonly Transform[];
  readonly after: readonly Transform[];
}

/**
 * A part's numbers on every whole frame with its local matrix multiplied from the left by `by`; turns go on the way they went. Null where
 * the result leans, which numbers can’t say.
 */
export function movedNumbers(
  program: Program,
  part: Part,
  frames: { readonly first: number; readonly last: number },
  by: (frame: number) => mat4 | null,
): Moved | null {
  const before: Transform[] = [];
  const after: Transform[] = [];
  for (let frame = frames.first; frame <= frames.last; frame++) {
    const own = transformAt(program, part, frame);
    const change = by(frame);
    if (!change || (part.squash?.frame === 'parent' && turns(change))) return null;
    const near = after.length > 0 ? onFrom(after.at(-1)!, before.at(-1)!, own) : own;
    const product = mat4.multiply(new Float64Array(16), change, matrixOf(part, own));
    const next = transformOf(part.pivot, part.turnOrder, product, {
      ...near,
      scale: mirrored(change, own.scale),
    });
    if (!next) return null;
    before.push(own);
    after.push(next);
  }
  return { first: frames.first, before, after };
}

/** The numbers of a frame before, moved on as the old ones moved: a turn goes on the way it went. */
function onFrom(last: Transform, oldLast: Transform, old: Transform): Transform {
  const rotate = last.rotate.map((value, n) => value + old.rotate[n]! - oldLast.rotate[n]!);
  return { ...last, rotate: rotate as unknown as Vec3 };
}

/** The signs that sizes have after a mirroring: turned on the axis that is mirrored. */
function mirrored(by: mat4, scale: Vec3): Vec3 {
  if (mat4.determinant(by) >= 0) return scale;
  return scale.map((size, n) => (by[n * 5]! < 0 ? -size : size)) as unknown as Vec3;
}

function turns(matrix: mat4): boolean {
  return [1, 2, 4, 6, 8, 9].some((i) => Math.abs(matrix[i]!) > 1e-9);
}
