import {
  curvesByChannel,
  curvesOfPart,
  partProperties,
  type Curve,
  type Part,
  type Project,
} from '@kaizen/core';
import type { BenchState } from '../../state/bench';
import type { LooseEdit } from '../../state/document';
import { channelLabelOf, type ChannelLabel } from '../channel-label';

/** A row of the Chart: a part, or one of its channels. */
export interface PartRow {
  readonly kind: 'part';
  readonly id: string;
  readonly part: Part;
  readonly depth: number;
  readonly open: boolean;
  /** Curves of the part's own channels: what its summary pegs stand for. */
  readonly curves: readonly Curve[];
  readonly opens: boolean;
}
export interface ChannelRow {
  readonly kind: 'channel';
  readonly id: string;
  readonly part: Part;
  readonly depth: number;
  readonly label: ChannelLabel;
  readonly curve: Curve | undefined;
  readonly driven: boolean;
  readonly loose: readonly LooseEdit[];
}
export type Row = PartRow | ChannelRow;

export interface RowsQuery {
  readonly filter: BenchState['filter'];
  readonly everyChannel: boolean;
  readonly collapsed: readonly string[];
  readonly parts: readonly string[];
  readonly channels: readonly string[];
  readonly search: string;
}

/** Deeper parts are not indented further, or names would have no room. */
const MOST_DEPTH = 4;

/** The rows to show, parents before children; under a filter or search without the hierarchy. */
export function chartRows(
  project: Project,
  driven: ReadonlySet<string>,
  loose: readonly LooseEdit[],
  query: RowsQuery,
): readonly Row[] {
  const rows: Row[] = [];
  const flat = query.filter !== 'all' || query.search !== '';
  const closed = new Set(query.collapsed);
  const looseOf = groupLoose(loose);
  const add = (part: Part, depth: number, hidden: boolean): void => {
    const channels = channelRows(project, part, driven, looseOf, depth, query);
    const children = childrenOf(project).get(part.id) ?? [];
    const wanted = flat
      ? channels.length > 0 || (query.search !== '' && matches(part.name, query.search))
      : !hidden;
    const open = flat || !closed.has(part.id);
    if (wanted) {
      const curves = curvesOfPart(project, part);
      const opens = channels.length > 0 || children.length > 0;
      rows.push({ kind: 'part', id: part.id, part, depth: flat ? 0 : depth, open, curves, opens });
      if (open) rows.push(...channels);
    }
    for (const child of children) add(child, Math.min(MOST_DEPTH, depth + 1), hidden || !open);
  };
  for (const part of childrenOf(project).get(null) ?? []) add(part, 0, false);
  return rows;
}

function channelRows(
  project: Project,
  part: Part,
  driven: ReadonlySet<string>,
  looseOf: ReadonlyMap<string, readonly LooseEdit[]>,
  depth: number,
  query: RowsQuery,
): ChannelRow[] {
  const chosenPart = query.parts.includes(part.id);
  const curves = curvesByChannel(project);
  return partProperties(part).flatMap(({ property }): ChannelRow[] => {
    const id = `${part.id}/${property}`;
    const curve = curves.get(id);
    const waiting = looseOf.get(id) ?? [];
    const lives = curve !== undefined || driven.has(id) || waiting.length > 0 || query.channels.includes(id);
    if (!lives && !query.everyChannel) return [];
    if (query.filter === 'keyed' && !curve) return [];
    if (query.filter === 'selected' && !chosenPart && !query.channels.includes(id)) return [];
    const label = channelLabelOf(part, property);
    if (query.search !== '' && !matches(`${part.name} ${label.short}`, query.search)) return [];
    const indent = (query.filter !== 'all' || query.search !== '' ? 0 : depth) + 1;
    return [
      { kind: 'channel', id, part, depth: indent, label, curve, driven: driven.has(id), loose: waiting },
    ];
  });
}

function groupLoose(loose: readonly LooseEdit[]): Map<string, readonly LooseEdit[]> {
  const map = new Map<string, readonly LooseEdit[]>();
  for (const edit of loose) map.set(edit.channel, [...(map.get(edit.channel) ?? []), edit]);
  return map;
}

function matches(text: string, search: string): boolean {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const lower = text.toLowerCase();
  return words.every((word) => lower.includes(word));
}

const childrenCache = new WeakMap<readonly Part[], Map<string | null, readonly Part[]>>();
function childrenOf(project: Project): Map<string | null, readonly Part[]> {
  let children = childrenCache.get(project.parts);
  if (!children) {
    const lists = new Map<string | null, Part[]>();
    for (const part of project.parts) {
      const list = lists.get(part.parent) ?? [];
      list.push(part);
      lists.set(part.parent, list);
    }
    children = lists;
    childrenCache.set(project.parts, children);
  }
  return children;
}

/** The channels whose curves the plot shows: one alone, else the chosen ones, else those of the chosen parts, else all. */
export function plottedChannels(
  project: Project,
  driven: ReadonlySet<string>,
  bench: Pick<BenchState, 'only' | 'channels' | 'parts'>,
): readonly string[] {
  const curves = curvesByChannel(project);
  const lives = (channel: string) => curves.has(channel) || driven.has(channel);
  if (bench.only !== null && lives(bench.only)) return [bench.only];
  const chosen = bench.channels.filter(lives);
  if (chosen.length > 0) return chosen;
  const of = (parts: readonly Part[]) =>
    parts
      .flatMap((part) => partProperties(part).map(({ property }) => `${part.id}/${property}`))
      .filter(lives);
  const ofParts = of(project.parts.filter((part) => bench.parts.includes(part.id)));
  if (ofParts.length > 0) return ofParts;
  return of(project.parts).filter((channel) => curves.has(channel));
}
