import type { Key, Project } from '../../project';
import { changeCurves, changeKeys, framesByChannel, type KeyRef } from '../curves';
import { asEdited, movedKeys, type Edited, type KeysWent } from '../mapping';
import { retimeKeys } from './retime';
import { shiftFrame } from './time-map';

/** Holds each key's value up to the next key. */
export function holdStill(project: Project, refs: readonly KeyRef[]): Project {
  return changeKeys(project, refs, (key) =>
    key.leg.kind === 'hold' ? key : { ...key, leg: { kind: 'hold' } },
  );
}

/**
 * Makes a wait of some frames after keys: a copy of each stands that much later and goes on as the key did, the key itself holds, and
 * what comes after on its channel moves later by the wait.
 */
export function waitAfter(project: Project, refs: readonly KeyRef[], frames: number): Edited {
  if (!(frames > 0)) return asEdited(project);
  const named = framesByChannel(refs);
  const went = new Map<string, KeysWent>();
  const next = changeCurves(project, [...named.keys()], (curve) => {
    const waits = [...named.get(curve.channel)!].filter((at) => curve.keys.some(({ frame }) => frame === at));
    if (waits.length === 0) return curve;
    const later = (frame: number) => shiftFrame(frame, frames * waits.filter((at) => at < frame).length);
    const moved = retimeKeys(curve, later, 'speed')!;
    went.set(curve.channel, new Map(curve.keys.map(({ frame }) => [frame, later(frame)])));
    const keys = moved.keys.flatMap((key, i): Key[] =>
      waits.includes(curve.keys[i]!.frame)
        ? [
            { ...key, leg: { kind: 'hold' } },
            { ...key, frame: shiftFrame(key.frame, frames) },
          ]
        : [key],
    );
    return { ...moved, keys };
  });
  return { project: next, mapping: movedKeys(went) };
}
