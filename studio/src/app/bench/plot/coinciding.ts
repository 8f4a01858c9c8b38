import { greatestOf, leastOf, pointAfter, type Polyline } from '@kaizen/core';
import { forList } from './for-list';
import type { Strip } from './plot';

/** Places at which curves are compared, and how near they must be, in pixels. */
const COMPARED = 24;
const SAME = 0.75;

/** Of each drawn channel of a strip that lies on others as far as it is drawn out: all that lie there, in the strip's order. */
export function coincidingGroups(
  strip: Strip,
  drawn: readonly string[],
  polyline: (channel: string) => Polyline | null,
): ReadonlyMap<string, readonly string[]> {
  const channels: string[] = [];
  const lines: Polyline[] = [];
  for (const channel of drawn) {
    const line = polyline(channel);
    if (!line) continue;
    channels.push(channel);
    lines.push(line);
  }
  const together = lineGroups(lines, (SAME * (strip.high - strip.low)) / strip.height);
  const groups = new Map<string, readonly string[]>();
  for (const group of together) {
    const names = group.map((i) => channels[i]!);
    for (const name of names) groups.set(name, names);
  }
  return groups;
}

/** The places in a list of lines that lie on each other within a distance. While the same lines are panned over nothing is compared anew. */
const lineGroups = forList((lines: readonly Polyline[], within: number): readonly (readonly number[])[] => {
  const from = greatestOf(lines.map((line) => line.from));
  const to = leastOf(lines.map((line) => line.to));
  const values = lines.map((line) => valuesOf(line, from, to));
  const taken = new Set<number>();
  return lines.flatMap((_, i) => {
    if (taken.has(i)) return [];
    const group = lines.flatMap((__, k) => (k >= i && near(values[i]!, values[k]!, within) ? [k] : []));
    for (const k of group) taken.add(k);
    return group.length > 1 ? [group] : [];
  });
});

function near(a: readonly number[], b: readonly number[], within: number): boolean {
  return a.every((value, i) => Math.abs(value - b[i]!) <= within);
}

/** The values of a line at even places between two frames, at the point before each. */
function valuesOf({ points }: Polyline, from: number, to: number): readonly number[] {
  const values: number[] = [];
  for (let k = 0; k <= COMPARED; k++) {
    const before = pointAfter(points, from + ((to - from) * k) / COMPARED) - 2;
    values.push(points[Math.max(0, before) + 1] ?? 0);
  }
  return values;
}
