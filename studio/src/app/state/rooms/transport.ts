import { atLeast, field, flag, number, oneOf } from './field';

export type PlayMode = 'once' | 'loop' | 'forth';

/** Where the playhead is and how it plays. */
export const transportFields = {
  /** The frame where the playhead stopped last. */
  frame: field(0, number),
  playMode: field<PlayMode>('loop', oneOf('once', 'loop', 'forth')),
  playSpeed: field(1, atLeast(0.001)),
  playEveryFrame: field<boolean>(false, flag),
  playAll: field<boolean>(false, flag),
  /** Frames that the arrow keys move the playhead by. */
  frameStep: field(1, atLeast(0.001)),
};
