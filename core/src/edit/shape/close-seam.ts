import type { Curve, Key, Project } from '../../project';
import { resolveSide, type CurveContext } from '../../curve';
import { changeCurves } from '../curves';
import { curveContext } from '../curve-context';
import { cycleOf, withSetSlope, type Cycle, type End } from './cycle';

/** How a seam is closed: the outer key moves, both ends meet half way, or the curve carries on from where it arrived. */
export type SeamMove = 'outer' | 'both' | 'carry';

/** Lets a curve arrive at a seam with the value it starts again with. */
export function closeSeamValue(
  project: Project,
  channels: readonly string[],
  end: End,
  how: SeamMove,
): Project {
  return changeCurves(project, channels, (curve) => {
    const cycle = cycleOf(curve, end);
    if (!cycle || (how !== 'carry' && cycle.carry === 0)) return curve;
    if (how === 'carry')
      return curve[end].mode === 'loop-carry'
        ? curve
        : { ...curve, [end]: { ...curve[end], mode: 'loop-carry' } };
    const [outer, inner] = ends(cycle, end);
    const target =
      how === 'outer' ? curve.keys[inner]!.value : (curve.keys[inner]!.value + curve.keys[outer]!.value) / 2;
    const moved = how === 'outer' ? [outer] : [outer, inner];
    return {
      ...curve,
      keys: curve.keys.map((key, i) => (moved.includes(i) ? { ...key, value: target } : key)),
    };
  });
}

/** The places of the key at the curve's end and of the key that follows it in the loop. */
function ends({ start, end: last }: Cycle, end: End): readonly [number, number] {
  return end === 'after' ? [last, start] : [start, last];
}

/** Whether both legs at a seam are curves, whose slopes can be set. */
export function seamSpeedCanClose(curve: Curve, end: End): boolean {
  const cycle = cycleOf(curve, end);
  return (
    cycle !== null &&
    curve.keys[cycle.start]!.leg.kind === 'curve' &&
    curve.keys[cycle.end - 1]!.leg.kind === 'curve'
  );
}

/**
 * Lets a curve arrive at a seam as fast as it starts again: the outer key takes the other's slope, or both take the mean. A swing turns round at
 * its end, so there the slope becomes 0. Ends whose leg is no curve stay as they are.
 */
export function closeSeamSpeed(
  project: Project,
  channels: readonly string[],
  end: End,
  how: Exclude<SeamMove, 'carry'>,
): Project {
  const context = curveContext(project);
  return changeCurves(project, channels, (curve) =>
    seamSpeedCanClose(curve, end) ? withEvenSeam(curve, cycleOf(curve, end)!, end, how, context) : curve,
  );
}

function withEvenSeam(
  curve: Curve,
  { start, end: last }: Cycle,
  end: End,
  how: Exclude<SeamMove, 'carry'>,
  context: CurveContext,
): Curve {
  const starts = resolveSide(curve, start, 'out', context).slope;
  const arrives = resolveSide(curve, last, 'in', context).slope;
  const swing = curve[end].mode === 'swing';
  const outerSlope = end === 'after' ? arrives : starts;
  const innerSlope = end === 'after' ? starts : arrives;
  const slope = swing ? 0 : how === 'outer' ? innerSlope : (outerSlope + innerSlope) / 2;
  const both = how === 'both' && !swing;
  const set = (key: Key, i: number): Key => {
    if (i === last && (end === 'after' || both)) return withSetSlope(key, 'in', slope);
    if (i === start && (end === 'before' || both)) return withSetSlope(key, 'out', slope);
    return key;
  };
  return { ...curve, keys: curve.keys.map(set) };
}
