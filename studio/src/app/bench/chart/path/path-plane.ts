import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { greatestOf, leastOf, channelKind, channelName, splitChannel } from '@kaizen/core';

/** Two place channels against each other at one scale: metres to pixels both ways, with as many pixels a metre across as up. */
export interface PathPlane {
  readonly x: ScaleLinear<number, number>;
  readonly y: ScaleLinear<number, number>;
  /** Pixels a metre. */
  readonly scale: number;
}

const MARGIN = 28;
const LEAST_SPAN = 0.1;

/** A plane in which all points have room, centred. */
export function fitPlane(
  points: readonly (readonly [number, number])[],
  width: number,
  height: number,
): PathPlane {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [left, right] = [leastOf(xs), greatestOf(xs)];
  const [low, high] = [leastOf(ys), greatestOf(ys)];
  const room = { width: Math.max(1, width - 2 * MARGIN), height: Math.max(1, height - 2 * MARGIN) };
  const scale = Math.min(
    room.width / Math.max(LEAST_SPAN, right - left),
    room.height / Math.max(LEAST_SPAN, high - low),
  );
  const [cx, cy] = [(left + right) / 2, (low + high) / 2];
  const [halfX, halfY] = [width / 2 / scale, height / 2 / scale];
  return {
    x: scaleLinear([cx - halfX, cx + halfX], [0, width]),
    y: scaleLinear([cy - halfY, cy + halfY], [height, 0]),
    scale,
  };
}

/** The two place channels of a part that a path is drawn of: the first two that are drawn, else those that have keys, X before Y before Z. */
export function pathChannels(
  drawn: readonly string[],
  hasKeys: (channel: string) => boolean,
): readonly [string, string] | null {
  const places = drawn.filter((channel) => channelKind(splitChannel(channel).property) === 'place');
  if (places[0] === undefined) return null;
  const { part } = splitChannel(places[0]);
  const own = ['x', 'y', 'z'].map((axis) => channelName(part, `translate.${axis}`));
  const among = own.filter((channel) => places.includes(channel));
  const more = own.filter((channel) => !among.includes(channel) && hasKeys(channel));
  const rest = own.filter((channel) => !among.includes(channel) && !more.includes(channel));
  const [a, b] = [...among, ...more, ...rest].slice(0, 2).sort();
  return a !== undefined && b !== undefined ? [a, b] : null;
}
