import type { Key, Project } from '../../project';
import { changeKeys, type KeyRef } from '../curves';
import type { Edited } from '../mapping';
import { scaledSide } from '../scaled-side';
import { scaleKeys } from '../time/stretch';
import type { SlopesKeep } from '../time/retime';

/** How a box of keys is scaled: about a frame and a value of the channel, by a factor each. */
export interface BoxScale {
  readonly frame: number;
  readonly frames: number;
  /** The value about which a channel's keys are scaled; channels it gives none for keep their values. */
  readonly value: (channel: string) => number | null;
  readonly values: number;
}

/**
 * Scales chosen keys in time and value. In time the factor is above 0, and a key takes the place of one it lands on; in value it may be any, and set
 * slopes go with it.
 */
export function scaleBox(
  project: Project,
  refs: readonly KeyRef[],
  { frame, frames, value, values }: BoxScale,
  slopes: SlopesKeep = 'shape',
): Edited {
  const risen =
    values === 1
      ? project
      : changeKeys(project, refs, (key, curve) => {
          const about = value(curve.channel);
          return about === null ? key : scaledKey(key, about, values);
        });
  return scaleKeys(risen, refs, frame, frames, slopes);
}

function scaledKey(key: Key, about: number, factor: number): Key {
  const [into, out] = [scaledSide(key.in, factor), scaledSide(key.out, factor)];
  return { ...key, value: about + (key.value - about) * factor, in: into, out };
}
