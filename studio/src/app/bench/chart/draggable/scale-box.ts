import { greatestOf, keyAtFrame, leastOf, curveOf, type KeyRef, type Project } from '@kaizen/core';
import type { BenchState } from '../../../state/bench';
import { chosenFrames } from '../../plot/chosen';
import { valueStrips, xOf, yOf, type Plot, type Strip } from '../../plot/plot';

/** Room between the outer chosen keys and the box around them, in pixels. */
const ROOM = 12;

/** The frames and values of the chosen keys of a strip. */
export interface KeyBox {
  readonly start: number;
  readonly end: number;
  readonly low: number;
  readonly high: number;
}

/** A grip of the box: which way it scales, and where it is. −1 is the start or the low side, 0 neither. */
export interface BoxGrip {
  readonly time: -1 | 0 | 1;
  readonly value: -1 | 0 | 1;
  readonly x: number;
  readonly y: number;
}

/** The box around the chosen keys of a strip; null for fewer than two. */
export function keyBox(project: Project, strip: Strip, keys: readonly KeyRef[]): KeyBox | null {
  const chosen = strip.channels.flatMap((channel) => {
    const curve = curveOf(project, channel);
    return curve ? [...chosenFrames(keys, channel)].flatMap((frame) => keyAtFrame(curve, frame) ?? []) : [];
  });
  if (chosen.length < 2) return null;
  const frames = chosen.map(({ frame }) => frame);
  const values = chosen.map(({ value }) => value);
  return {
    start: leastOf(frames),
    end: greatestOf(frames),
    low: leastOf(values),
    high: greatestOf(values),
  };
}

/** The box in pixels. */
export function boxEdges(plot: Plot, strip: Strip, box: KeyBox) {
  return {
    left: xOf(plot, box.start) - ROOM,
    right: xOf(plot, box.end) + ROOM,
    top: yOf(strip, box.high) - ROOM,
    bottom: yOf(strip, box.low) + ROOM,
  };
}

/** The eight grips of the box; those of an edge without length are left out. */
export function boxGrips(
  plot: Plot,
  strip: Strip,
  project: Project,
  keys: readonly KeyRef[],
): readonly BoxGrip[] {
  const box = keyBox(project, strip, keys);
  if (!box) return [];
  const { left, right, top, bottom } = boxEdges(plot, strip, box);
  const xs = { [-1]: left, 0: (left + right) / 2, 1: right };
  const ys = { [-1]: bottom, 0: (top + bottom) / 2, 1: top };
  const ways = [-1, 0, 1] as const;
  return ways.flatMap((time) =>
    ways.flatMap((value): BoxGrip[] => {
      if (time === 0 && value === 0) return [];
      if (time !== 0 && box.end === box.start) return [];
      if (value !== 0 && box.high === box.low) return [];
      return [{ time, value, x: xs[time], y: ys[value] }];
    }),
  );
}

/** The boxes around the chosen keys, a strip each, while they are asked for. */
export function shownBoxes(
  plot: Plot,
  project: Project | null,
  { shaping, density, keys }: Pick<BenchState, 'shaping' | 'density' | 'keys'>,
) {
  if (!project || !shaping.box || density === 'ticks') return [];
  return valueStrips(plot).flatMap((strip) => {
    const box = keyBox(project, strip, keys);
    return box ? [{ edges: boxEdges(plot, strip, box), grips: boxGrips(plot, strip, project, keys) }] : [];
  });
}
