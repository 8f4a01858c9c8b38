import { scaleLinear, type ScaleLinear } from 'd3-scale';
import type { ChannelLabel } from '../channel-label';
import type { TimeAxis } from './time-axis';

/** A strip of the plot: channels of one unit over one scale of values. */
export interface Strip {
  readonly unit: string;
  readonly channels: readonly string[];
  readonly labels: readonly ChannelLabel[];
  readonly top: number;
  readonly height: number;
  readonly low: number;
  readonly high: number;
  /** From values to pixels of the canvas. */
  readonly scale: ScaleLinear<number, number>;
}

/** Where the Chart's pixels lie in time and value. All pixels are of the canvas, from its top left. */
export interface Plot {
  readonly axis: TimeAxis;
  readonly width: number;
  readonly height: number;
  readonly strips: readonly Strip[];
  /** From frames to pixels of the canvas. */
  readonly time: ScaleLinear<number, number>;
}

export const RULER = 24;
export const PEG_ROW = 24;
export const ROW = 24;
/** Where the strips begin. */
export const PLOT_TOP = RULER + PEG_ROW;

export interface ValueRange {
  readonly low: number;
  readonly high: number;
}
const UNKNOWN_RANGE: ValueRange = { low: -1, high: 1 };

/** Lays channels out in strips, one a unit, in the order they come. */
export function layStrips(
  channels: readonly { readonly channel: string; readonly label: ChannelLabel }[],
  ranges: ReadonlyMap<string, ValueRange>,
  height: number,
): readonly Strip[] {
  const units = new Map<string, { channels: string[]; labels: ChannelLabel[] }>();
  for (const { channel, label } of channels) {
    const name = stripName(label);
    const strip = units.get(name) ?? { channels: [], labels: [] };
    strip.channels.push(channel);
    strip.labels.push(label);
    units.set(name, strip);
  }
  const each = Math.max(1, (height - PLOT_TOP) / Math.max(1, units.size));
  return [...units].map(([unit, { channels: own, labels }], i): Strip => {
    const { low, high } = ranges.get(unit) ?? UNKNOWN_RANGE;
    const top = PLOT_TOP + i * each;
    const scale = scaleLinear([low, high], [top + each, top]);
    return { unit, channels: own, labels, top, height: each, low, high, scale };
  });
}

export function layPlot(axis: TimeAxis, width: number, height: number, strips: readonly Strip[]): Plot {
  return { axis, width, height, strips, time: scaleLinear([axis.first, axis.last], [0, width]) };
}

/** Channels share a strip by their unit; those without one by their kind. */
function stripName(label: ChannelLabel): string {
  return label.unit || label.kind;
}

export function xOf(plot: Plot, frame: number): number {
  return plot.time(frame);
}

export function frameAt(plot: Plot, x: number): number {
  return plot.time.invert(x);
}

export function yOf(strip: Strip, value: number): number {
  return strip.scale(value);
}

export function valueAt(strip: Strip, y: number): number {
  return strip.scale.invert(y);
}

export function stripAt(plot: Plot, y: number): Strip | undefined {
  return plot.strips.find((strip) => y >= strip.top && y < strip.top + strip.height);
}

/** A range with room above and below; a flat one gets some height. */
export function roomyRange(low: number, high: number, unit: string): ValueRange {
  if (!Number.isFinite(low) || !Number.isFinite(high)) return UNKNOWN_RANGE;
  const least = unit === '°' ? 10 : unit === 'mm' ? 5 : 0.2;
  const middle = (low + high) / 2;
  const half = Math.max((high - low) * 0.62, least / 2);
  return { low: middle - half, high: middle + half };
}
