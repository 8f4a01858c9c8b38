import { DEFAULT_OUTSIDE, type Curve, type Project, type Take } from '../project';
import { changeCurves, curveOf, emptyCurve, newKey, withKeys } from './curves';
import { takeOf } from './takes';

const NOTHING: Take = { keys: [], before: DEFAULT_OUTSIDE, after: DEFAULT_OUTSIDE, treatments: [] };

/** Values that differ by no more than this are one. */
const STILL = 1e-12;

/**
 * Writes a channel's values on whole frames as keys, one where they stand still; what was keyed before is kept as the second take,
 * for `unbakedCurves`.
 */
export function withBaked(
  project: Project,
  channel: string,
  first: number,
  values: readonly number[],
): Project {
  const still = values.every((value) => Math.abs(value - values[0]!) <= STILL * Math.max(1, Math.abs(value)));
  const keys = (still ? values.slice(0, 1) : values).map((value, i) => newKey(first + i, value));
  const before = curveOf(project, channel);
  const kept = before ? takeOf(before) : NOTHING;
  return changeCurves(
    project,
    [channel],
    ({ locked }) => ({ ...withKeys({ ...emptyCurve(channel), locked }, keys), otherTake: kept }),
    { locked: 'change' },
  );
}

/** Brings back what some channels had before they were baked. */
export function unbakedCurves(project: Project, channels: ReadonlySet<string>): Project {
  const clips = project.clips.map((clip) => ({
    ...clip,
    curves: clip.curves.flatMap((curve): Curve[] => {
      if (!curve.otherTake || !channels.has(curve.channel)) return [curve];
      const { otherTake, ...rest } = curve;
      return otherTake.keys.length === 0 ? [] : [{ ...rest, ...otherTake }];
    }),
  }));
  return { ...project, clips };
}
