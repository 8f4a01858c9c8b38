import type { Part } from '@kaizen/core';
import type { BenchState } from '../../state/bench';
import { ROW } from './plot';
import type { Row } from './rows';

/**
 * How far the rows are scrolled so that what is chosen is among those in sight: as little as that takes, not at all where one of
 * the chosen is in sight already. A part whose row is folded away is looked for under what it rides on.
 */
export function scrolledToChosen(
  rows: readonly Row[],
  parts: readonly Part[],
  chosen: Pick<BenchState, 'parts' | 'channels'>,
  { top, height }: { readonly top: number; readonly height: number },
): number {
  const at = rowsOfChosen(rows, parts, chosen);
  const inSight = (index: number) => index * ROW >= top && (index + 1) * ROW <= top + height;
  const [first] = at;
  if (first === undefined || height < ROW || at.some(inSight)) return top;
  return first * ROW < top ? first * ROW : (first + 1) * ROW - height;
}

function rowsOfChosen(
  rows: readonly Row[],
  parts: readonly Part[],
  chosen: Pick<BenchState, 'parts' | 'channels'>,
): readonly number[] {
  const places = (kind: Row['kind'], ids: ReadonlySet<string>) =>
    rows.flatMap((row, i) => (row.kind === kind && ids.has(row.id) ? [i] : []));
  const channels = places('channel', new Set(chosen.channels));
  if (channels.length > 0 || chosen.parts.length === 0) return channels;
  const byId = new Map(parts.map((part) => [part.id, part]));
  let ids = new Set(chosen.parts);
  while (ids.size > 0) {
    const found = places('part', ids);
    if (found.length > 0) return found;
    ids = new Set([...ids].flatMap((id) => byId.get(id)?.parent ?? []));
  }
  return [];
}
