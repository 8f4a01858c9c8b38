import { scaleLinear } from 'd3-scale';
import { framesPerSecond, type Project, type TimingSheet } from '@kaizen/core';
import { channelLabel } from '../bench/stage/channel-label';
import { decimalsOf, shownFrame, shownNumber } from '../ui/amount';

/** Pixels of the drawing: a row a channel, names at the left, a scale of frames and one of seconds above. */
export const [ROW, LEFT, TOP, RIGHT, WIDTH] = [34, 190, 46, 24, 1120] as const;
const BAR = 14;
/** A bar that is narrower than this has no room for its values. */
const ROOM_FOR_WORDS = 62;

export interface DrawnRow {
  readonly name: string;
  readonly y: number;
  readonly bars: readonly DrawnBar[];
}
interface DrawnBar {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** The values it goes between; empty where there is no room. */
  readonly words: string;
  readonly whole: string;
}
/** An interlock between two rows: down or up from where what is awaited comes, and along to the key that waits. */
export interface DrawnThread {
  readonly path: string;
  readonly holds: boolean;
  readonly at: { readonly x: number; readonly y: number };
  readonly number: number;
}
export interface DrawnTick {
  readonly x: number;
  readonly frame: string;
  readonly seconds: string;
}

/** A timing sheet in pixels. */
export interface TimingDrawing {
  readonly height: number;
  readonly rows: readonly DrawnRow[];
  readonly threads: readonly DrawnThread[];
  readonly ticks: readonly DrawnTick[];
  readonly x: (frame: number) => number;
}

export function drawTiming(project: Project, sheet: TimingSheet): TimingDrawing {
  const { range } = project;
  const x = scaleLinear([range.start, Math.max(range.end, range.start + 1)], [LEFT, WIDTH - RIGHT]);
  const rate = framesPerSecond(project.rate);
  const middle = (row: number) => TOP + row * ROW + ROW / 2;
  const rows = sheet.channels.map(({ channel, moves }, row): DrawnRow => {
    const { full, unit } = channelLabel(project, channel);
    const value = (number: number) => shownNumber(number, Math.min(2, decimalsOf(unit)));
    return {
      name: full,
      y: middle(row),
      bars: moves.map(({ from, to, first, last }) => {
        const words = `${value(from)} → ${value(to)} ${unit}`.trim();
        const width = Math.max(2, x(last) - x(first));
        return {
          x: x(first),
          y: middle(row) - BAR / 2,
          width,
          height: BAR,
          words: width >= Math.max(ROOM_FOR_WORDS, words.length * 6.2) ? words : '',
          whole: `f ${shownFrame(first)} to ${shownFrame(last)}: ${words}`,
        };
      }),
    };
  });
  const places = new Map(sheet.channels.map(({ channel }, row) => [channel, middle(row)]));
  const threads = sheet.interlocks.flatMap(({ lock, standing }, i): DrawnThread[] => {
    const [from, to] = [places.get(lock.after.channel), places.get(lock.channel)];
    if (from === undefined || to === undefined || standing.awaited === null) return [];
    const way = to > from ? 1 : -1;
    const [a, b] = [x(standing.awaited), x(lock.frame)];
    const turn = to - way * (ROW / 2);
    return [
      {
        path: `M${a},${from + way * (BAR / 2)}V${turn}H${b}V${to - way * (BAR / 2)}`,
        holds: standing.holds,
        at: { x: (a + b) / 2, y: turn },
        number: i + 1,
      },
    ];
  });
  const ticks = x.ticks(11).map((frame) => ({
    x: x(frame),
    frame: shownFrame(frame),
    seconds: shownNumber((frame - range.start) / rate, 2),
  }));
  return { height: TOP + rows.length * ROW + 8, rows, threads, ticks, x };
}
