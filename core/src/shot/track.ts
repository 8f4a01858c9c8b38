import type { Jet } from '../law';
import type { Tolerance } from './track-errors';

/** The paths of a node that a format can animate. */
export type NodePath = 'translation' | 'rotation' | 'scale';

/** Something that moves, ready to be fitted. */
export interface Track {
  /** Frames on which it must have keys. */
  readonly knots: readonly number[];
  /** One jet per frame for each component, just after the frame. */
  readonly jets: (frame: number) => readonly Jet[];
  readonly error: Tolerance;
  /** Degrees turned between two frames, along the way. */
  readonly turned?: (from: number, to: number) => number;
  /** It goes straight between its keys whatever the settings are. */
  readonly straight?: true;
}
