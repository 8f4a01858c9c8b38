import type { Key, Leg, Project } from '../../project';
import { changeKeys, framesByChannel, type KeyRef } from '../curves';
import { turnedSide } from './turned-side';

/**
 * Mirrors the values of keys about a value of their channel: `v` becomes `2c − v`, slopes turn round, free falls fall the
 * other way. `about` gives c for a channel.
 */
export function mirrorValues(
  project: Project,
  refs: readonly KeyRef[],
  about: (channel: string) => number,
): Project {
  const named = framesByChannel(refs);
  return changeKeys(project, refs, (key, curve, index): Key => {
    const next = curve.keys[index + 1];
    const legToo = !next || named.get(curve.channel)?.has(next.frame);
    return {
      ...key,
      value: 2 * about(curve.channel) - key.value,
      in: turnedSide(key.in),
      out: turnedSide(key.out),
      leg: legToo ? upsideDown(key.leg, project.gravity) : key.leg,
    };
  });
}

function upsideDown(leg: Leg, gravity: number): Leg {
  if (leg.kind !== 'ballistic') return leg;
  const turnedGravity = -(leg.gravity ?? gravity);
  const { gravity: _own, ...plain } = leg;
  return turnedGravity === gravity ? plain : { ...leg, gravity: turnedGravity };
}
