import {
  driverInputs,
  type Curve,
  type KeyedCurve,
  type Outside,
  type Project,
  type Treatment,
} from '../../project';
import { legLaw } from '../../curve';

/** More corners than this in one track are not kept apart; the fit finds them by halving. */
const MOST_KNOTS = 20000;

/** Frames in [start, end] where a channel may jump or bend: its keys and law breaks, through every repetition, and those of what drives it. */
export function channelKnots(
  project: Project,
  curves: readonly Curve[],
  channel: string,
  start: number,
  end: number,
): number[] {
  const found = new Set<number>([start, end]);
  collect(project, curves, channel, 0, start, end, found, new Set());
  return [...found]
    .filter((frame) => frame >= start && frame <= end)
    .sort((a, b) => a - b)
    .filter(apart);
}

function apart(frame: number, i: number, list: readonly number[]): boolean {
  return i === 0 || frame - list[i - 1]! > 1e-7 || i === list.length - 1;
}

function collect(
  project: Project,
  curves: readonly Curve[],
  channel: string,
  shift: number,
  start: number,
  end: number,
  found: Set<number>,
  seen: Set<string>,
): void {
  const mark = `${channel} ${shift}`;
  if (seen.has(mark)) return;
  seen.add(mark);
  const curve = curves.find((candidate) => candidate.channel === channel && !candidate.muted);
  const add = (frame: number) => {
    if (found.size < MOST_KNOTS) found.add(frame + shift);
  };
  if (curve) {
    const [from, to] = [start - shift, end - shift];
    keyedKnots(curve, from, to).forEach(add);
    for (const treatment of curve.treatments)
      if (!treatment.muted) treatmentKnots(treatment, curve, from, to).forEach(add);
  }
  for (const driver of project.drivers) {
    if (driver.muted || driver.target !== channel) continue;
    const late = driver.kind === 'echo' ? driver.delay : 0;
    for (const input of driverInputs(driver))
      collect(project, curves, input, shift + late, start, end, found, seen);
  }
}

function treatmentKnots(treatment: Treatment, curve: Curve, start: number, end: number): number[] {
  const weight = typeof treatment.weight === 'number' ? [] : keyedKnots(treatment.weight, start, end);
  if (treatment.kind === 'delay') {
    const { frames } = treatment;
    return [...weight, ...keyedKnots(curve, start - frames, end - frames).map((frame) => frame + frames)];
  }
  if (treatment.kind === 'every') {
    const { frames, offset = 0 } = treatment;
    for (let step = Math.ceil((start - offset) / frames); offset + step * frames <= end; step++) {
      if (weight.length > MOST_KNOTS) break;
      weight.push(offset + step * frames);
    }
  }
  return weight;
}

function keyedKnots(curve: KeyedCurve, start: number, end: number): number[] {
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

/** The knots of the cycles beyond one end, up to `reach` frames away. */
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
    MOST_KNOTS / Math.max(1, cycle.length),
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
