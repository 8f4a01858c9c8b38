import { scaleLinear, type ScaleLinear } from 'd3-scale';
import type { Project, RateOrder } from '@kaizen/core';
import type { ChannelLabel } from '../stage/channel-label';
import type { TimeAxis } from './time-axis';

/** What a strip draws of its channels. */
export type Order = RateOrder;

/** A strip of the plot: channels of one unit over one scale of values. */
export interface Strip {
  /** The unit of what is drawn: `m`, in strips of rates `m/s`, `m/s²`, `m/s³`. No two strips have the same. */
  readonly unit: string;
  /** The unit as it is told: none for values that have none, `1/s` for their rates. */
  readonly told: string;
  readonly order: Order;
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
  /** Where the ruler with its markers and sounds ends and the rows or the plot begin. */
  readonly head: number;
  /** From frames to pixels of the canvas. */
  readonly time: ScaleLinear<number, number>;
}

export const RULER = 24;
export const PEG_ROW = 24;
export const ROW = 24;
/** The rows under the ruler: markers and notes, then the waveforms of sounds. */
export const MARKER_ROW = 22;
export const SOUND_ROW = 34;
/** Where the strips begin under a ruler without markers and sounds. */
export const PLOT_TOP = RULER + PEG_ROW;

/** How high the ruler is with what stands on it. */
export function headHeight(project: Pick<Project, 'markers' | 'sounds'> | null): number {
  const markers = project && project.markers.length > 0 ? MARKER_ROW : 0;
  const sounds = project && project.sounds.length > 0 ? SOUND_ROW : 0;
  return RULER + markers + sounds;
}

export interface ValueRange {
  readonly low: number;
  readonly high: number;
}
const UNKNOWN_RANGE: ValueRange = { low: -1, high: 1 };

const PER_SECOND = ['', '/s', '/s²', '/s³'] as const;
/** Room for values where rates are drawn too, beside 1 for each rate. */
const SHARE_OF_VALUES = 1.4;

/** Lays channels out in strips, one a unit and, of each, one an order that is asked for, in the order they come. */
export function layStrips(
  channels: readonly { readonly channel: string; readonly label: ChannelLabel }[],
  ranges: ReadonlyMap<string, ValueRange>,
  height: number,
  head = RULER,
  orders: readonly Order[] = [0],
): readonly Strip[] {
  const units = new Map<string, { channels: string[]; labels: ChannelLabel[] }>();
  for (const { channel, label } of channels) {
    const name = stripName(label);
    const strip = units.get(name) ?? { channels: [], labels: [] };
    strip.channels.push(channel);
    strip.labels.push(label);
    units.set(name, strip);
  }
  const shares = orders.map((order) => (order === 0 && orders.length > 1 ? SHARE_OF_VALUES : 1));
  const sum = shares.reduce((total, share) => total + share, 0) * Math.max(1, units.size);
  const one = Math.max(1, (height - head - PEG_ROW) / sum);
  let top = head + PEG_ROW;
  return [...units].flatMap(([name, { channels: own, labels }]) =>
    orders.map((order, k): Strip => {
      const unit = name + PER_SECOND[order];
      const { low, high } = ranges.get(unit) ?? UNKNOWN_RANGE;
      const tall = one * shares[k]!;
      const scale = scaleLinear([low, high], [top + tall, top]);
      top += tall;
      const told = labels[0]!.unit ? unit : order > 0 ? `1${PER_SECOND[order]}` : '';
      return { unit, told, order, channels: own, labels, top: top - tall, height: tall, low, high, scale };
    }),
  );
}

export function layPlot(
  axis: TimeAxis,
  width: number,
  height: number,
  strips: readonly Strip[],
  head = RULER,
): Plot {
  return { axis, width, height, strips, head, time: scaleLinear([axis.first, axis.last], [0, width]) };
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

/** The strips whose heights are values of channels, not rates: those that have keys. */
export function valueStrips({ strips }: Plot): readonly Strip[] {
  return strips.filter(({ order }) => order === 0);
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
