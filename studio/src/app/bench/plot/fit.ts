import {
  curveOf,
  eachKey,
  greatestOf,
  leastOf,
  type Curve,
  type KeyRef,
  type Program,
  type Project,
} from '@kaizen/core';
import { playedSpread, spreadOf, type TimeView } from './chart-lines';
import type { Parted } from './crowd/crowds';
import { roomyRange, valueStrips, type Plot, type Strip, type ValueRange } from './plot';
import { handleValues, keySpread, withFoot, withHead } from './value-range';

/** What of a project a plot shows. */
interface Shown {
  readonly project: Project;
  readonly program: Program;
  readonly plot: Plot;
  readonly view: TimeView;
  /** Which channels of a strip are drawn one by one. */
  readonly parted: (strip: Strip) => Parted;
}

/** The values that each strip has to reach to show its curves over the shown frames, by its unit; handles of chosen keys included. */
export function fittedRanges(
  { project, program, plot, view, parted }: Shown,
  chosen: readonly KeyRef[],
): readonly (readonly [string, ValueRange])[] {
  return plot.strips.map((strip) => {
    let low = strip.order === 0 ? Infinity : 0;
    let high = strip.order === 0 ? -Infinity : 0;
    const { front, crowd } = parted(strip);
    for (const channel of front) {
      const spread = spreadOf(view, program, project, strip.order, channel);
      const handles = strip.order === 0 ? handleValues(project, channel, chosen) : [];
      low = Math.min(low, spread.low, leastOf(handles));
      high = Math.max(high, spread.high, greatestOf(handles));
    }
    const keys = strip.order === 0 ? keySpread(project, crowd, plot.axis) : null;
    if (keys) [low, high] = [Math.min(low, keys.low), Math.max(high, keys.high)];
    const range = withFoot(roomyRange(low, high, strip.unit), strip, project);
    return [strip.unit, withHead(range, high, strip)];
  });
}

/** Whether all keys of the drawn channels' curves that lie in the shown time also lie in the shown values. */
export function showsKeys(plot: Plot, curveOfChannel: (channel: string) => Curve | undefined): boolean {
  const { axis } = plot;
  return valueStrips(plot).every(({ channels, low, high }) => {
    let shown = true;
    const tell = (frame: number, value: number) => {
      if (frame >= axis.first && frame <= axis.last && (value < low || value > high)) shown = false;
    };
    return channels.every((channel) => {
      const curve = curveOfChannel(channel);
      if (curve) eachKey(curve, tell);
      return shown;
    });
  });
}

/** Whether what is drawn of certain channels in the shot's range and between their keys, in the shown time, lies in the shown values. */
export function showsLines(
  { project, plot, view, parted }: Omit<Shown, 'program'>,
  isMeant: (channel: string) => boolean,
): boolean {
  return valueStrips(plot).every((strip) =>
    parted(strip)
      .front.filter(isMeant)
      .every((channel) => {
        const curve = curveOf(project, channel);
        const spread = curve ? playedSpread(view, project, curve) : null;
        return !spread || (spread.low >= strip.low && spread.high <= strip.high);
      }),
  );
}
