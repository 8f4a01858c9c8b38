import { frames, NOT_FINITE, orNull, otherwise, partId, type AttachConstraint } from '../../project';
import { invertAffine, multiplyAffine } from '../affine';
import type { ConstraintKind, PoseReader } from './constraint';
import { multiplyFromLeft } from './move';

/** The part rides along: A(f)·A(start)⁻¹ on its left from start to end, then what it was at the end; A is the target's matrix. */
export const attach: ConstraintKind<AttachConstraint> = {
  says: 'rides on {target}',
  fields: { target: partId(), start: frames(), end: otherwise(orNull(frames()), null) },
  example: { target: 'hook', start: 40, end: 96 },
  refuse: ({ start, end }) =>
    end !== null && end < start
      ? { at: ['end'], message: `end is ${end} and start ${start}; end must be at or after start` }
      : null,
  span: ({ start, end }) => ({ start, end }),
  make: (constraint, context) => {
    const at = new Float64Array(16);
    const carried = new Float64Array(16);
    const linear = new Float64Array(9);
    const target = context.part(constraint.target);
    const { start, end } = constraint;
    const begin = (read: PoseReader): Float64Array =>
      read.kept(constraint, () => {
        const out = new Float64Array(16);
        read.worldAt(target, start, at);
        invertAffine(out, at);
        return out;
      });
    return {
      parts: [target],
      late: [target],
      apply: (held, read) => {
        if (read.frame < start) return 0;
        const inverse = begin(read);
        if (end !== null && read.frame > end) {
          read.worldAt(target, end, at);
          multiplyAffine(carried, at, inverse);
        } else multiplyAffine(carried, read.worldOf(target), inverse);
        if (!carried.every(Number.isFinite)) return NOT_FINITE;
        const { world } = held;
        const [x, y, z] = [world[12]!, world[13]!, world[14]!];
        for (let column = 0; column < 3; column++)
          for (let row = 0; row < 3; row++) linear[column * 3 + row] = carried[column * 4 + row]!;
        multiplyFromLeft(held, linear);
        for (let row = 0; row < 3; row++)
          world[12 + row] =
            carried[row]! * x + carried[4 + row]! * y + carried[8 + row]! * z + carried[12 + row]!;
        return 0;
      },
    };
  },
};
