import type { RulerMoves, SlopesKeep } from '@kaizen/core';
import { field, flag, number, oneOf, shaped } from './field';

/** How edits of time are done: on what, what becomes of set slopes, and what goes along. */
export interface TimeSettings {
  readonly scope: 'chosen' | 'all';
  /** What becomes of set slopes on legs that a push or gap makes longer or shorter, and on those that are stretched. */
  readonly pushedSlopes: SlopesKeep;
  readonly slopes: SlopesKeep;
  readonly rest: 'follows' | 'stays';
  /** Frames that a push moves, a gap has, a wait lasts. */
  readonly amount: number;
  readonly mirrorAbout: 'first' | 'zero' | 'playhead';
  readonly moves: RulerMoves;
}

const slopes = oneOf('speed', 'shape');

export const timingFields = {
  time: field<TimeSettings>(
    {
      scope: 'chosen',
      pushedSlopes: 'speed',
      slopes: 'shape',
      rest: 'follows',
      amount: 24,
      mirrorAbout: 'first',
      moves: { range: true, markers: true, sounds: false },
    },
    shaped({
      scope: oneOf('chosen', 'all'),
      pushedSlopes: slopes,
      slopes,
      rest: oneOf('follows', 'stays'),
      amount: number,
      mirrorAbout: oneOf('first', 'zero', 'playhead'),
      moves: shaped({ range: flag, markers: flag, sounds: flag }),
    }),
  ),
};
