import { secondsPerFrame, type Curve, type Project } from '../project';
import { resolveSide } from '../curve';
import { curveContext, rampsOf, type KeyRef } from '../edit';

/**
 * What can be taken hold of in a strip of speed: a key's side (frame and speed, per second), or of a trapezoid or s-curve the end of its run-up,
 * the beginning of its slowing down, and the cruise between them.
 */
export type SpeedMark = { readonly frame: number; readonly speed: number; readonly chosen: boolean } & (
  | { readonly kind: 'key'; readonly ref: KeyRef; readonly side: 'in' | 'out' }
  | { readonly kind: 'ramp'; readonly ref: KeyRef; readonly which: 'accelerate' | 'decelerate' }
);

/** A cruise to be lifted or lowered: the key whose leg it is, from one frame to another, at a speed. */
export interface Cruise {
  readonly ref: KeyRef;
  readonly from: number;
  readonly to: number;
  readonly speed: number;
}

/** The marks of one curve; a joined key has one. */
export function speedMarks(
  project: Project,
  curve: Curve,
  isChosen: (frame: number) => boolean,
): readonly SpeedMark[] {
  const context = curveContext(project);
  const seconds = secondsPerFrame(project.rate);
  return curve.keys.flatMap((key, i): SpeedMark[] => {
    const ref = { channel: curve.channel, frame: key.frame };
    const chosen = isChosen(key.frame);
    const sides = (['in', 'out'] as const).filter((side) => isCurveSide(curve, i, side));
    const shown = key.joined && sides.length === 2 ? sides.slice(1) : sides;
    const marks = shown.map((side): SpeedMark => ({
      kind: 'key',
      ref,
      side,
      frame: key.frame,
      speed: resolveSide(curve, i, side, context).slope / seconds,
      chosen,
    }));
    const ramps = rampsOf(curve, i);
    if (!ramps || ramps.rise === 0) return marks;
    const speed = ramps.cruise / seconds;
    const ends = [
      { which: 'accelerate' as const, frame: key.frame + ramps.accelerate * ramps.length },
      { which: 'decelerate' as const, frame: key.frame + (1 - ramps.decelerate) * ramps.length },
    ];
    return [...marks, ...ends.map((end): SpeedMark => ({ kind: 'ramp', ref, speed, chosen, ...end }))];
  });
}

/** Whether a key's side meets a leg that is a curve, the only kind that sides shape. */
export function isCurveSide({ keys }: Curve, i: number, side: 'in' | 'out'): boolean {
  const leg = side === 'out' ? (keys[i + 1] ? keys[i]!.leg : undefined) : keys[i - 1]?.leg;
  return leg?.kind === 'curve';
}

/** The cruises of one curve. */
export function cruises(project: Project, curve: Curve): readonly Cruise[] {
  const seconds = secondsPerFrame(project.rate);
  return curve.keys.flatMap((key, i): Cruise[] => {
    const ramps = rampsOf(curve, i);
    if (!ramps || ramps.rise === 0) return [];
    return [
      {
        ref: { channel: curve.channel, frame: key.frame },
        from: key.frame + ramps.accelerate * ramps.length,
        to: key.frame + (1 - ramps.decelerate) * ramps.length,
        speed: ramps.cruise / seconds,
      },
    ];
  });
}
