import {
  compileCurve,
  curveContext,
  curveOf,
  curveRef,
  curveValue,
  keyedSpan,
  otherTakeAsCurve,
  restOf,
  secondsPerFrame,
  ownerOf,
  type CompiledCurve,
  type Curve,
  type Program,
  type Project,
  curvePolyline,
  drivenPolyline,
  polylineExtent,
  sampleStep,
  type Polyline,
  curveRates,
  drivenRates,
  rateExtent,
  type RateLine,
  limitBand,
} from '@kaizen/core';
import type { Shaping } from '../../state/bench';
import { limitOf } from '../stage/channel-label';
import type { Order, ValueRange } from './plot';
import type { TimeAxis } from './time-axis';

/** The frames that show, and over how many pixels. */
export interface TimeView {
  readonly axis: TimeAxis;
  readonly width: number;
}

/** A limit up to so many times the greatest rate is fitted into the strip with it. */
const LIMIT_IN_SIGHT = 1.8;

function stepOf({ axis, width }: TimeView, pixels = 1): number {
  return sampleStep((pixels * (axis.last - axis.first)) / width);
}

/** A channel, or a treatment's weight, drawn out over the frames that show. */
export function channelLine(
  view: TimeView,
  program: Program,
  project: Project | null,
  channel: string,
): Polyline | null {
  const { first, last } = view.axis;
  const slot = program.structure.slots.get(channel);
  if (slot === undefined) {
    const weight = project && ownerOf(channel) !== channel ? curveOf(project, channel) : undefined;
    return weight && project ? asideLine(view, project, weight) : null;
  }
  const curve = program.curveAt(slot);
  if (program.isDriven(slot) || !curve) return drivenPolyline(program, slot, first, last, stepOf(view));
  return curvePolyline(curve, first, last, stepOf(view));
}

/** A curve that does not play, compiled: a weight, a second take, a curve before its treatments. */
function compiledAside(project: Project, curve: Curve) {
  const rest = ownerOf(curve.channel) !== curve.channel ? 1 : restOf(project, curve.channel);
  return compileCurve(curve, rest, curveContext(project));
}

function asideLine(view: TimeView, project: Project, curve: Curve): Polyline {
  return curvePolyline(compiledAside(project, curve), view.axis.first, view.axis.last, stepOf(view));
}

/** What is drawn beside a channel's curve where it is asked for: its second take, and itself before its treatments. */
export function linesBeside(
  view: TimeView,
  project: Project,
  channel: string,
  { takes, untreated }: Shaping,
): readonly Polyline[] {
  const curve = takes || untreated ? curveOf(project, channel) : undefined;
  if (!curve) return [];
  const take = takes ? otherTakeAsCurve(curve) : undefined;
  const plain = untreated && curve.treatments.length > 0 ? withTreatments(curve, 0) : undefined;
  return [take, plain].flatMap((each) => (each ? [asideLine(view, project, each)] : []));
}

/** What enters and what leaves a treatment of a channel, drawn out; null where there is no such treatment or it is muted. */
export function linesOfLane(
  view: TimeView,
  project: Project,
  lane: string,
): { readonly channel: string; readonly into: Polyline; readonly out: Polyline } | null {
  const ref = curveRef(lane);
  const curve = ref.of === 'weight' ? curveOf(project, ref.channel) : undefined;
  if (!curve || ref.of !== 'weight' || (curve.treatments[ref.treatment]?.muted ?? true)) return null;
  const [into, out] = [ref.treatment, ref.treatment + 1].map((count) =>
    asideLine(view, project, withTreatments(curve, count)),
  );
  return { channel: curve.channel, into: into!, out: out! };
}

/** The rates of a channel, or of a weight, drawn out over the frames that show; null where neither is there. */
export function channelRateLine(
  view: TimeView,
  program: Program,
  project: Project,
  channel: string,
): RateLine | null {
  const slot = program.structure.slots.get(channel);
  const { first, last } = view.axis;
  const source = curveOf(project, channel);
  const step = stepOf(view, 2);
  const rates = (drawn: Curve, curve: CompiledCurve) =>
    curveRates(drawn, curve, first, last, step, secondsPerFrame(project.rate));
  if (slot === undefined) return source ? rates(source, compiledAside(project, source)) : null;
  const curve = program.curveAt(slot);
  return source && curve && !program.isDriven(slot)
    ? rates(source, curve)
    : drivenRates(program, project, channel, first, last, step);
}

/** What a channel, or a weight, shows at a frame. */
export function valueOfChannel(program: Program, project: Project, channel: string, frame: number): number {
  const slot = program.structure.slots.get(channel);
  if (slot !== undefined) return program.channelValue(slot, frame);
  const curve = curveOf(project, channel);
  return curve ? curveValue(compiledAside(project, curve), frame) : 0;
}

/** From the least to the greatest of what a strip of an order draws of a channel, its keys and a limit that is near among them. */
export function spreadOf(
  view: TimeView,
  program: Program,
  project: Project,
  order: Order,
  channel: string,
): ValueRange {
  const { first, last } = view.axis;
  if (order === 0) {
    const line = channelLine(view, program, project, channel);
    const drawn = line ? polylineExtent(line, first, last) : { low: Infinity, high: -Infinity };
    return withKeys(drawn, curveOf(project, channel), first, last);
  }
  const rates = channelRateLine(view, program, project, channel);
  if (!rates) return { low: 0, high: 0 };
  const { low, high } = rateExtent(rates, order, first, last);
  const band = limitBand(order, limitOf(project, channel));
  const most = Math.max(Math.abs(low), Math.abs(high));
  return band && band.high <= most * LIMIT_IN_SIGHT
    ? { low: Math.min(low, band.low), high: Math.max(high, band.high) }
    : { low, high };
}

/** From the least to the greatest value of a curve in the shot's range and between its keys, over the frames that show; null where none does. */
export function playedSpread(view: TimeView, project: Project, curve: Curve): ValueRange | null {
  const { first, last } = keyedSpan(curve) ?? { first: Infinity, last: -Infinity };
  const from = Math.max(view.axis.first, Math.min(first, project.range.start));
  const to = Math.min(view.axis.last, Math.max(last, project.range.end));
  if (from > to) return null;
  return polylineExtent(curvePolyline(compiledAside(project, curve), from, to, stepOf(view)), from, to);
}

/** A range with the keys that are in sight: under a clamp or a gain they lie beside the line, and must be within reach. */
function withKeys(
  { low, high }: ValueRange,
  curve: Curve | undefined,
  first: number,
  last: number,
): ValueRange {
  const inSight = (curve?.keys ?? []).filter(({ frame }) => frame >= first && frame <= last);
  return inSight.reduce(
    (range, { value }) => ({ low: Math.min(range.low, value), high: Math.max(range.high, value) }),
    { low, high },
  );
}

/** A curve with so many of its first treatments; none: as its keys have it. */
function withTreatments(curve: Curve, count: number): Curve {
  let byCount = partlyTreated.get(curve);
  if (!byCount) partlyTreated.set(curve, (byCount = new Map<number, Curve>()));
  let made = byCount.get(count);
  if (!made) byCount.set(count, (made = { ...curve, treatments: curve.treatments.slice(0, count) }));
  return made;
}
const partlyTreated = new WeakMap<Curve, Map<number, Curve>>();
