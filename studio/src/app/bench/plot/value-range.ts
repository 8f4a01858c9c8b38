import { curveOf, curvesOf, eachKey, handlePlace, type KeyRef, type Project } from '@kaizen/core';
import { chosenFrames } from './chosen';
import type { Strip, ValueRange } from './plot';
import type { TimeAxis } from './time-axis';

/** From the least to the greatest key of many channels over the frames that show; null where there is none. */
export function keySpread(
  project: Project,
  channels: readonly string[],
  { first, last }: TimeAxis,
): ValueRange | null {
  let [low, high] = [Infinity, -Infinity];
  const tell = (frame: number, value: number) => {
    if (frame < first || frame > last) return;
    if (value < low) low = value;
    if (value > high) high = value;
  };
  for (const curve of curvesOf(project, channels)) eachKey(curve, tell);
  return low <= high ? { low, high } : null;
}

/** Whether ranges by unit are the same. */
export function sameRanges(a: ReadonlyMap<string, ValueRange>, b: ReadonlyMap<string, ValueRange>): boolean {
  if (a.size !== b.size) return false;
  for (const [unit, { low, high }] of a) {
    const other = b.get(unit);
    if (other?.low !== low || other.high !== high) return false;
  }
  return true;
}

/** The values of the handles that show on a channel: those of its chosen keys. */
export function handleValues(project: Project, channel: string, keys: readonly KeyRef[]): readonly number[] {
  const curve = curveOf(project, channel);
  if (!curve) return [];
  const chosen = chosenFrames(keys, channel);
  return curve.keys.flatMap((key, i) =>
    chosen.has(key.frame)
      ? (['in', 'out'] as const).flatMap((side) => handlePlace(project, curve, i, side)?.value ?? [])
      : [],
  );
}

/** A strip that names its legs along its foot has so many pixels more there. */
const FOOT = 16;

export function withFoot({ low, high }: ValueRange, strip: Strip, project: Project): ValueRange {
  const [only, more] = strip.channels;
  const curve = strip.order === 0 && more === undefined ? curveOf(project, only!) : undefined;
  const names = curve?.keys.slice(0, -1).some(({ leg }) => leg.kind !== 'curve') ?? false;
  const foot = names ? FOOT / Math.max(2 * FOOT, strip.height - FOOT) : 0;
  return { low: low - (high - low) * foot, high };
}

/** A strip has its name along its head: what it shows begins so many pixels below. */
const HEAD = 22;
const MOST_HEAD = 0.3;

/** A range in which the greatest value on show lies below the strip's name. */
export function withHead({ low, high }: ValueRange, greatest: number, { height }: Strip): ValueRange {
  const share = Math.min(MOST_HEAD, HEAD / height);
  const needed = (greatest - share * low) / (1 - share);
  return { low, high: Number.isFinite(greatest) ? Math.max(high, needed) : high };
}
