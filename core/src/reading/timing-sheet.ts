import { activeClip, type Curve, type Interlock, type Project } from '../project';
import { interlockStanding, type InterlockStanding } from '../edit';

/** A channel's way from one value to another, one way round, between two of its keys. */
export interface Move {
  readonly from: number;
  readonly to: number;
  readonly first: number;
  readonly last: number;
}

/** A channel of the machine with its moves in the order of time. */
export interface TimedChannel {
  readonly channel: string;
  readonly moves: readonly Move[];
}

/** What a machine does over its cycle: which channels move when, and what waits for what. */
export interface TimingSheet {
  readonly channels: readonly TimedChannel[];
  readonly interlocks: readonly { readonly lock: Interlock; readonly standing: InterlockStanding }[];
}

const STILL = 1e-9;

/**
 * The timing sheet of the clip that plays: of each keyed channel that moves, its moves; keys between which it goes on the same way are
 * one move. In the order in which they first move.
 */
export function timingSheet(project: Project): TimingSheet {
  const clip = activeClip(project);
  const channels = (clip?.curves ?? [])
    .filter(({ muted }) => !muted)
    .map((curve) => ({ channel: curve.channel, moves: movesOf(curve) }))
    .filter(({ moves }) => moves.length > 0)
    .sort((a, b) => a.moves[0]!.first - b.moves[0]!.first);
  const interlocks = project.interlocks
    .filter((lock) => lock.clip === clip?.id && !lock.muted)
    .map((lock) => ({ lock, standing: interlockStanding(project, lock) }));
  return { channels, interlocks };
}

function movesOf({ keys }: Curve): readonly Move[] {
  const moves: Move[] = [];
  for (const [i, key] of keys.entries()) {
    const next = keys[i + 1];
    if (!next || key.leg.kind === 'hold' || Math.abs(next.value - key.value) <= STILL) continue;
    const move = { from: key.value, to: next.value, first: key.frame, last: next.frame };
    const before = moves.at(-1);
    const goesOn =
      before?.last === key.frame && Math.sign(before.to - before.from) === Math.sign(move.to - move.from);
    if (goesOn) moves[moves.length - 1] = { ...before, to: move.to, last: move.last };
    else moves.push(move);
  }
  return moves;
}
