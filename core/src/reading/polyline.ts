import { curveValue, LEG_HOLD, type CompiledCurve } from '../curve';
import type { Program } from '../evaluate';
import { firstWhere } from '../project';

/**
 * A curve drawn out as straight pieces: frame, value, frame, value, … from `from` to `to`. A hold's jump is two points on
 * one frame.
 */
export interface Polyline {
  readonly from: number;
  readonly to: number;
  readonly step: number;
  readonly points: Float64Array;
}

const curveCache = new WeakMap<CompiledCurve, Polyline>();
const drivenCache = new WeakMap<Program, Map<number, Polyline>>();

/** A step for sampling that is a power of two, so that panning and small zooms take what is there. */
export function sampleStep(framesPerPixel: number): number {
  return 2 ** Math.floor(Math.log2(framesPerPixel * 1.5));
}

/** The polyline of a curve over at least the frames named; made anew only for another curve, step or place. */
export function curvePolyline(curve: CompiledCurve, from: number, to: number, step: number): Polyline {
  const known = curveCache.get(curve);
  if (known && covers(known, from, to, step)) return known;
  const reach = widened(from, to);
  const points = drawOut(curve, reach.from, reach.to, step);
  const made = { ...reach, step, points };
  curveCache.set(curve, made);
  return made;
}

/** The same for a channel that a driver moves. */
export function drivenPolyline(
  program: Program,
  slot: number,
  from: number,
  to: number,
  step: number,
): Polyline {
  let ofProgram = drivenCache.get(program);
  if (!ofProgram) drivenCache.set(program, (ofProgram = new Map<number, Polyline>()));
  const known = ofProgram.get(slot);
  if (known && covers(known, from, to, step)) return known;
  const count = Math.floor((to - from) / step) + 1;
  const points = new Float64Array(count * 2);
  for (let i = 0; i < count; i++) {
    points[i * 2] = from + i * step;
    points[i * 2 + 1] = program.channelValue(slot, from + i * step);
  }
  const made = { from, to: from + (count - 1) * step, step, points };
  ofProgram.set(slot, made);
  return made;
}

function covers(known: Polyline, from: number, to: number, step: number): boolean {
  return known.step === step && known.from <= from && known.to + step >= to;
}

/** Half a view more on both sides, so that panning finds it there. */
function widened(from: number, to: number): { from: number; to: number } {
  return { from: from - (to - from) / 2, to: to + (to - from) / 2 };
}

function drawOut(curve: CompiledCurve, from: number, to: number, step: number): Float64Array {
  const { times, values, kinds } = curve.keys;
  const points: number[] = [];
  let key = 0;
  while (key < times.length && times[key]! < from) key++;
  const start = Math.floor(from / step);
  const end = Math.ceil(to / step);
  for (let i = start; i <= end; i++) {
    const frame = i * step;
    for (; key < times.length && times[key]! <= frame; key++) {
      const time = times[key]!;
      if (!curve.treated && !curve.muted && key > 0 && kinds[key - 1] === LEG_HOLD)
        points.push(time, values[key - 1]!);
      points.push(time, curveValue(curve, time));
    }
    points.push(frame, curveValue(curve, frame));
  }
  return Float64Array.from(points);
}

/** Least and greatest value of a polyline between two frames. */
export function polylineExtent(
  line: Polyline,
  from: number,
  to: number,
): { readonly low: number; readonly high: number } {
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < line.points.length; i += 2) {
    const frame = line.points[i]!;
    if (frame < from || frame > to) continue;
    low = Math.min(low, line.points[i + 1]!);
    high = Math.max(high, line.points[i + 1]!);
  }
  return { low, high };
}

interface Thinned {
  readonly within: number;
  readonly points: Float64Array;
}

const thinnedCache = new WeakMap<Polyline, Thinned>();

/**
 * The points of a polyline without those that lie, in value, within a distance of the straight piece that takes their place. Its ends
 * stay, and both points of a jump that is higher. Made anew only for another polyline or distance. Each piece goes on as long as some
 * slope from its start passes all its points (E. H. Bristol, Swinging door trending, 1990).
 */
export function thinnedPoints(line: Polyline, within: number): Float64Array {
  const known = thinnedCache.get(line);
  if (known?.within === within) return known.points;
  const points = thinned(line.points, within);
  thinnedCache.set(line, { within, points });
  return points;
}

function thinned(points: Float64Array, within: number): Float64Array {
  const kept = new Float64Array(points.length);
  let count = 0;
  const keep = (at: number) => {
    kept[count++] = points[at]!;
    kept[count++] = points[at + 1]!;
  };
  let [from, low, high] = [0, -Infinity, Infinity];
  for (let i = 2; i < points.length; i += 2) {
    const slope = (points[i + 1]! - points[from + 1]!) / (points[i]! - points[from]!);
    if (i - from > 2 && !(slope >= low && slope <= high)) {
      keep(from);
      [from, low, high] = [i - 2, -Infinity, Infinity];
    }
    const across = points[i]! - points[from]!;
    const up = points[i + 1]! - points[from + 1]!;
    // what begins with a jump has that point and no more
    low = across > 0 ? Math.max(low, (up - within) / across) : Infinity;
    high = across > 0 ? Math.min(high, (up + within) / across) : -Infinity;
  }
  if (points.length > 0) keep(from);
  if (points.length > 2) keep(points.length - 2);
  return kept.slice(0, count);
}

/** The place in a polyline of its first point after a frame; past its last point where there is none. */
export function pointAfter(points: Float64Array, frame: number): number {
  return 2 * firstWhere(0, points.length >> 1, (i) => points[2 * i]! > frame);
}
