import { flag, frames, NOT_FINITE, otherwise, type PlantConstraint } from '../../project';
import { multiplyByTransposed, shareOfTurn, turnIn } from '../linear';
import { placeOf } from '../place';
import type { ConstraintKind, Held, PoseReader } from './constraint';
import { shift, turnAboutPivot } from './move';

/** Where a part stood at a frame: its pivot, and its turn or null where it has none. */
interface Stand {
  readonly place: Float64Array;
  readonly turn: Float64Array | null;
}

const linear = new Float64Array(9);

function turnOfWorld(out: Float64Array, world: Float64Array): boolean {
  for (let column = 0; column < 3; column++)
    for (let row = 0; row < 3; row++) linear[column * 3 + row] = world[column * 4 + row]!;
  return turnIn(out, linear);
}

/** From start to end the pivot stays where it is at start, with `turn` the orientation too; what was held fades out after the end. */
export const plant: ConstraintKind<PlantConstraint> = {
  says: 'stays where it stands',
  fields: {
    start: frames(),
    end: frames(),
    fade: otherwise(frames({ minimum: 0 }), 0),
    turn: otherwise(flag(), false),
  },
  example: { start: 24, end: 40, fade: 6 },
  refuse: ({ start, end }) =>
    end < start
      ? { at: ['end'], message: `end is ${end} and start ${start}; end must be at or after start` }
      : null,
  span: ({ start, end, fade }) => ({ start, end: end + fade }),
  make: (constraint) => {
    const matrix = new Float64Array(16);
    const now = new Float64Array(9);
    const by = new Float64Array(9);
    const share = new Float64Array(9);
    const place = new Float64Array(3);
    const { start, end, fade, turn } = constraint;
    const standAt = (read: PoseReader, number: number, frame: number, pivot: Held['pivot']): Stand => {
      read.ownAt(number, frame, matrix);
      const at = new Float64Array(3);
      placeOf(at, matrix, pivot);
      const axes = new Float64Array(9);
      return { place: at, turn: turnOfWorld(axes, matrix) ? axes : null };
    };
    return {
      apply: (held, read, number) => {
        const { frame } = read;
        if (frame < start || frame > end + fade || (frame > end && fade === 0)) return 0;
        const stands = read.kept(constraint, () => ({
          start: standAt(read, number, start, held.pivot),
          end: standAt(read, number, end, held.pivot),
        }));
        const u = frame <= end ? 0 : (frame - end) / fade;
        const left = 1 - u * u * (3 - 2 * u);
        if (turn) {
          const from = stands.start.turn;
          const to = frame <= end ? now : stands.end.turn;
          if (!from || !to || (frame <= end && !turnOfWorld(now, held.world))) return NOT_FINITE;
          multiplyByTransposed(by, from, to);
          shareOfTurn(share, by, left);
          turnAboutPivot(held, share);
        }
        if (frame <= end) placeOf(place, held.world, held.pivot);
        else place.set(stands.end.place);
        const away = (row: number) => left * (stands.start.place[row]! - place[row]!);
        shift(held, away(0), away(1), away(2));
        return 0;
      },
    };
  },
};
