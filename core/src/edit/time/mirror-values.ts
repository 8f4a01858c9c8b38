import type { Key, Leg, Project, Side } from '../../project';
import { changeKeys, type KeyRef } from '../curves';

/**
 * Mirrors the values of keys about a value of their channel: `v` becomes `2c − v`, slopes turn round, free falls fall the
 * other way. `about` gives c for a channel.
 */
export function mirrorValues(
  project: Project,
  refs: readonly KeyRef[],
  about: (channel: string) => number,
): Project {
  const named = new Map<string, Set<number>>();
  for (const { channel, frame } of refs) named.set(channel, (named.get(channel) ?? new Set()).add(frame));
  return changeKeys(project, refs, (key, curve, index): Key => {
    const next = curve.keys[index + 1];
    const legToo = !next || named.get(curve.channel)?.has(next.frame);
    return {
      ...key,
      value: 2 * about(curve.channel) - key.value,
      in: turned(key.in),
      out: turned(key.out),
      leg: legToo ? upsideDown(key.leg, project.gravity) : key.leg,
    };
  });
}

function turned(side: Side): Side {
  return side.slope === 0 ? side : { ...side, slope: -side.slope };
}

function upsideDown(leg: Leg, gravity: number): Leg {
  if (leg.kind !== 'ballistic') return leg;
  const turnedGravity = -(leg.gravity ?? gravity);
  const { gravity: _own, ...plain } = leg;
  return turnedGravity === gravity ? plain : { ...leg, gravity: turnedGravity };
}
