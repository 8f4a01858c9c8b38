import type { Curve, KeyedCurve, Outside, Treatment } from '../project';
import { legLaw } from './legs';

/** More corners than this in one curve are not told apart. */
const MOST_CORNERS = 20000;

/**
 * Frames in [start, end] where a curve may jump or bend: its keys and the breaks of its laws, through every repetition, and what its
 * treatments add. In no order, some more than once.
 */
export function curveCorners(curve: Curve, start: number, end: number): number[] {
  return curve.treatments.reduce(
    (corners, treatment) =>
      treatment.muted ? corners : [...corners, ...treatmentCorners(treatment, curve, start, end)],
    keyedCorners(curve, start, end),
  );
}

function treatmentCorners(treatment: Treatment, curve: Curve, start: number, end: number): number[] {
  const weight = typeof treatment.weight === 'number' ? [] : keyedCorners(treatment.weight, start, end);
  if (treatment.kind === 'delay') {
    const { frames } = treatment;
    return [...weight, ...keyedCorners(curve, start - frames, end - frames).map((frame) => frame + frames)];
  }
  if (treatment.kind === 'every') {
    const { frames, offset = 0 } = treatment;
    for (let step = Math.ceil((start - offset) / frames); offset + step * frames <= end; step++) {
      if (weight.length > MOST_CORNERS) break;
      weight.push(offset + step * frames);
    }
  }
  return weight;
}

function keyedCorners(curve: KeyedCurve, start: number, end: number): number[] {
  const inner = curve.keys.flatMap((key, i) => {
    const next = curve.keys[i + 1];
    const law = next ? legLaw(key.leg) : null;
    return [
      key.frame,
      ...(law && next ? law.breaks.map((at) => key.frame + at * (next.frame - key.frame)) : []),
    ];
  });
  const first = inner[0];
  const last = curve.keys.at(-1)?.frame;
  if (first === undefined || last === undefined) return [];
  return [
    ...inner,
    ...unrolled(inner, curve.after, curve.after.pin ?? first, last, 1, end - last),
    ...unrolled(inner, curve.before, first, curve.before.pin ?? last, -1, first - start),
  ];
}

/** The corners of the cycles beyond one end, up to `reach` frames away. */
function unrolled(
  inner: readonly number[],
  outside: Outside,
  a: number,
  b: number,
  sign: 1 | -1,
  reach: number,
): number[] {
  if (outside.mode === 'hold' || outside.mode === 'run-on' || !(b > a)) return [];
  const period = b - a;
  const cycle = inner.filter((frame) => frame >= a && frame <= b);
  const count = Math.min(
    Math.ceil(reach / period),
    outside.count ?? Infinity,
    MOST_CORNERS / Math.max(1, cycle.length),
  );
  const list: number[] = [];
  for (let k = 1; k <= Math.ceil(count); k++) {
    const edge = sign > 0 ? b + (k - 1) * period : a - (k - 1) * period;
    const mirrored = outside.mode === 'swing' && k % 2 === 1;
    for (const frame of cycle) {
      const along = mirrored === sign > 0 ? b - frame : frame - a;
      list.push(edge + sign * along);
    }
  }
  if (outside.count !== null) list.push(sign > 0 ? b + outside.count * period : a - outside.count * period);
  return list;
}
