import { SIDE_MODES, type AreaLock, type Leg, type SideMode } from '@kaizen/core';
import { field, flag, oneOf, shaped } from './field';

/** How new keys begin: how the curve meets them, and the leg after a key that comes into no leg. */
export interface NewKeys {
  readonly mode: SideMode;
  readonly leg: Leg;
}

/** How shapes are looked at and worked on in the Chart. */
export interface Shaping {
  /** The third rate, beside speed and acceleration. */
  readonly jerk: boolean;
  readonly lock: AreaLock;
  /** Fitting leaves the scales of value alone. */
  readonly valueLock: boolean;
  /** The strip of pictures of eases and laws. */
  readonly pictures: boolean;
  /** A box around the chosen keys, to be scaled by its handles. */
  readonly box: boolean;
  /** Dragging a handle makes the key's other handle as much longer or shorter. */
  readonly together: boolean;
  /** The second takes of the drawn channels, beside what plays. */
  readonly takes: boolean;
  /** Curves as they are before their treatments, beside what shows. */
  readonly untreated: boolean;
  /** Treatments as lanes under the curve they lie over. */
  readonly lanes: boolean;
  /** Metres against metres: the path that two place channels draw, at one scale. */
  readonly path: boolean;
}

export const shapingFields = {
  newKeys: field<NewKeys>(
    { mode: 'smooth', leg: { kind: 'curve' } },
    shaped({
      mode: oneOf(...SIDE_MODES),
      leg: shaped({ kind: oneOf('curve', 'hold', 'ease', 'law', 'ballistic') }),
    }),
  ),
  shaping: field<Shaping>(
    {
      jerk: false,
      lock: 'places',
      valueLock: false,
      pictures: false,
      box: false,
      together: false,
      takes: false,
      untreated: false,
      lanes: true,
      path: false,
    },
    shaped({
      jerk: flag,
      lock: oneOf('places', 'free'),
      valueLock: flag,
      pictures: flag,
      box: flag,
      together: flag,
      takes: flag,
      untreated: flag,
      lanes: flag,
      path: flag,
    }),
  ),
};
