import { leastOf } from '../project';
import type { Curve, Project } from '../project';
import { curvesByChannel, type KeyRef } from './curves';

/** Selections by one press: keys of some channels, by where they stand. Locked channels are left out. */
function select(
  project: Project,
  channels: readonly string[],
  which: (frame: number, index: number, curve: Curve) => boolean,
): readonly KeyRef[] {
  const curves = curvesByChannel(project);
  return channels.flatMap((channel) => {
    const curve = curves.get(channel);
    if (!curve || curve.locked) return [];
    return curve.keys.filter((key, i) => which(key.frame, i, curve)).map(({ frame }) => ({ channel, frame }));
  });
}

/** All keys but those of the first pose: of the first frame on which any of the channels has a key. */
export function keysButFirst(project: Project, channels: readonly string[]): readonly KeyRef[] {
  const first = leastOf(select(project, channels, (_, i) => i === 0).map(({ frame }) => frame));
  return select(project, channels, (frame) => frame !== first);
}

/** The keys after a frame, the one on it included. */
export function keysAfter(project: Project, channels: readonly string[], at: number): readonly KeyRef[] {
  return select(project, channels, (frame) => frame >= at);
}

/** The keys before a frame, the one on it included. */
export function keysBefore(project: Project, channels: readonly string[], at: number): readonly KeyRef[] {
  return select(project, channels, (frame) => frame <= at);
}

/** Every key whose channel has the value there that it has in a pose, wherever it stands. */
export function keysOfPose(
  project: Project,
  channels: readonly string[],
  pose: ReadonlyMap<string, number>,
): readonly KeyRef[] {
  return select(project, channels, (_, i, curve) => {
    const value = pose.get(curve.channel);
    return (
      value !== undefined && Math.abs(curve.keys[i]!.value - value) <= 1e-9 * Math.max(1, Math.abs(value))
    );
  });
}
