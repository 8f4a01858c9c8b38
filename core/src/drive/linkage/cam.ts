import { CAM_LAWS, list, maybe, number, object, oneOf, type CamLaw } from '../../project';
import { camLaw, composeJet, constantJet, signAfter, type Law } from '../../law';
import { linkage } from './linkage';

/** One stretch of a cam: up to an angle, to a lift, by a law; a dwell keeps the lift before. */
interface Stretch {
  readonly to: number;
  readonly lift?: number;
  readonly law: CamLaw | 'dwell';
  readonly accelerate?: number;
  readonly decelerate?: number;
  readonly smoothing?: number;
}
interface Piece {
  readonly from: number;
  readonly to: number;
  readonly base: number;
  readonly rise: number;
  readonly law: Law | null;
}

/** A cam with its follower: a program of stretches over 360°, each a law from the lift before; periodic. */
export const cam = linkage<{ program: readonly Stretch[] }>('cam', {
  inputs: ['angle'],
  outputs: ['lift'],
  params: {
    program: list(
      object({
        to: number({ unit: '°' }),
        lift: maybe(number({ unit: 'm' })),
        law: oneOf(...CAM_LAWS, 'dwell'),
        accelerate: maybe(number()),
        decelerate: maybe(number()),
        smoothing: maybe(number()),
      }),
    ),
  },
  refuse: ({ program }) => refusal(program),
  make: ({ program }) => {
    const pieces = piecesOf(program);
    /** The piece around an angle in [0, 360); the one before it where the cam turns backward at a piece's begin. */
    const pieceAt = (within: number, backward = false): Piece => {
      let i = 0;
      while (i < pieces.length - 1 && (backward ? within > pieces[i]!.to : within >= pieces[i]!.to)) i++;
      return pieces[i]!;
    };
    const within = (angle: number) => {
      const rest = angle - 360 * Math.floor(angle / 360);
      return rest >= 360 ? 0 : rest;
    };
    const lift = (piece: Piece, at: number) =>
      piece.law
        ? piece.base + piece.rise * piece.law.value((at - piece.from) / (piece.to - piece.from))
        : piece.base;
    return {
      solve: ([angle], out, at) => {
        const place = within(angle!);
        out[at] = lift(pieceAt(place), place);
        return 0;
      },
      jets: ([angle]) => {
        const at = within(angle![0]);
        const value = lift(pieceAt(at), at);
        const backward = signAfter([0, angle![1], angle![2], angle![3]]) < 0;
        const place = backward && at === 0 ? 360 : at;
        const piece = pieceAt(place, backward);
        if (!piece.law) return [constantJet(value)];
        const span = piece.to - piece.from;
        const [, d1, d2, d3] = piece.law.rates((place - piece.from) / span, backward);
        const { rise } = piece;
        const jet = composeJet(
          [value, (rise * d1) / span, (rise * d2) / span ** 2, (rise * d3) / span ** 3],
          angle!,
        );
        return [jet];
      },
    };
  },
});

function piecesOf(program: readonly Stretch[]): readonly Piece[] {
  let from = 0;
  let base = 0;
  for (const { law, lift } of program) if (law !== 'dwell') base = lift ?? base;
  return program.map((stretch) => {
    const { to, law } = stretch;
    const end = law === 'dwell' ? base : (stretch.lift ?? base);
    const piece: Piece = {
      from,
      to,
      base,
      rise: end - base,
      law: law === 'dwell' ? null : camLaw({ ...stretch, kind: 'law', law }),
    };
    from = to;
    base = end;
    return piece;
  });
}

function refusal(program: readonly Stretch[]): string | null {
  let last = 0;
  if (program.length === 0) return 'the program is empty; it must have at least one stretch, up to 360';
  for (const stretch of program) {
    if (typeof stretch !== 'object' || stretch === null) return 'a stretch of the program is no object';
    const { to, lift, law } = stretch;
    if (typeof to !== 'number' || !(to > last))
      return `a stretch goes to ${JSON.stringify(to) ?? 'nothing'} after ${last}; the angles must rise, up to 360`;
    if (law !== 'dwell' && !CAM_LAWS.includes(law))
      return `${JSON.stringify(law) ?? 'nothing'} is no law of a cam; it must be dwell or one of ${CAM_LAWS.join(', ')}`;
    if (law !== 'dwell' && typeof lift !== 'number')
      return `the stretch to ${to} has no lift; it must have one, or dwell`;
    const ramps = law === 'trapezoid' || law === 's-curve';
    if (ramps && (stretch.accelerate ?? 1 / 3) + (stretch.decelerate ?? 1 / 3) > 1 + 1e-12)
      return `accelerate and decelerate of the stretch to ${to} add up to more than 1; together they must be at most 1`;
    last = to;
  }
  return last === 360 ? null : `the program ends at ${last}; its last stretch must go to 360`;
}
