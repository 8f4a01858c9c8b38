import {
  activeClip,
  curvesByChannel,
  curvesOfPart,
  splitChannel,
  withDescendants,
  type ChannelKind,
  type Curve,
  type CurveIndex,
  type Part,
  type Project,
} from '@kaizen/core';
import type { BenchState } from '../../state/bench';
import type { LooseEdit } from '../../state/document';
import { labelOf } from '../stage/channel-label';
import { namesOf } from './channel-names';
import { childrenOf } from './children-of';
import { hasWords } from './has-words';
import type { ChannelRow, Row } from './row-kinds';
import { touchedSince } from './rows-since';
import { NO_SPANS, spanRow, spansOf } from './span-rows';
import { threadsUnder, tiedChannels } from './thread-rows';

export type { ChannelRow, KindRow, PartRow, Row } from './row-kinds';
export type { SpanRow } from './span-rows';
export type { ThreadRow } from './thread-rows';

export interface RowsQuery {
  readonly filter: BenchState['filter'];
  readonly everyChannel: boolean;
  readonly collapsed: readonly string[];
  readonly parts: readonly string[];
  readonly channels: readonly string[];
  readonly kinds: readonly ChannelKind[];
  readonly summary: BenchState['summary'];
  readonly search: string;
  /** Only these channels; null: all. */
  readonly set: readonly string[] | null;
}

/** Deeper parts are not indented further, or names would have no room. */
const MOST_DEPTH = 4;
/** Channels of one kind get a row of their own from so many on. */
const KIND_ROW_FROM = 2;

/** The rows to show, parents before children; under a filter or search without the hierarchy. */
export function chartRows(
  project: Project,
  driven: ReadonlySet<string>,
  loose: readonly LooseEdit[],
  query: RowsQuery,
): readonly Row[] {
  const rows: Row[] = [];
  const flat = query.filter !== 'all' || query.search !== '' || query.set !== null;
  const closed = new Set(query.collapsed);
  const asked: Asked = {
    project,
    curves: curvesByChannel(project),
    driven,
    looseOf: groupLoose(loose),
    more: partsOf([...driven, ...query.channels, ...loose.map(({ channel }) => channel)]),
    closed,
    query,
    chosen: new Set(query.channels),
    chosenParts: new Set(query.filter === 'selected' ? query.parts : []),
    set: query.set && new Set(query.set),
    tied: query.filter === 'tied' ? tiedChannels(project) : NO_TIES,
  };
  const key = cacheKey(query, query.filter === 'tied' ? project.interlocks : null);
  const touched = touchedSince({ curves: activeClip(project)?.curves ?? [], driven, loose, query, key });
  const isTied = project.interlocks.length > 0;
  const add = (part: Part, depth: number, hidden: boolean): void => {
    const { own, channels, list } = rowsOfPart(part, depth, flat, asked, { key, touched });
    const children = childrenOf(project).get(part.id) ?? [];
    const wanted = flat
      ? channels > 0 || (query.search !== '' && hasWords(part.name, query.search))
      : !hidden;
    const open = flat || !closed.has(part.id);
    const spans = showsSpans(query) ? spansOf(project, part.id) : NO_SPANS;
    if (wanted) {
      const curves = query.summary === 'own' ? own : curvesBelow(project, part);
      const opens = channels > 0 || children.length > 0 || spans.length > 0;
      rows.push({ kind: 'part', id: part.id, part, depth: flat ? 0 : depth, open, curves, opens });
      if (open)
        for (const row of list) {
          rows.push(row);
          if (isTied && row.kind === 'channel') rows.push(...threadsUnder(project, part, row.id, row.depth));
        }
      if (open) for (const span of spans) rows.push(spanRow(project, part, span, flat ? 1 : depth + 1));
    }
    for (const child of children) add(child, Math.min(MOST_DEPTH, depth + 1), hidden || !open);
  };
  for (const part of childrenOf(project).get(null) ?? []) add(part, 0, false);
  return rows;
}

/** Constraints have no keys: they do not show where only keyed channels, or a set of channels, do. */
function showsSpans({ filter, set }: RowsQuery): boolean {
  return set === null && (filter === 'all' || filter === 'selected');
}

/** The rows below a part's own, as they were made last, and what they were made of. */
interface CachedRows {
  readonly key: object;
  readonly depth: number;
  readonly chosenPart: boolean;
  readonly own: readonly Curve[];
  readonly channels: number;
  readonly list: readonly Row[];
}
const rowsCache = new WeakMap<Part, CachedRows>();

/** What is asked of all channels, and the parts that may have changed since that was asked last; null: all may. */
interface Since {
  readonly key: object;
  readonly touched: ReadonlySet<string> | null;
}

/** The rows below a part's own: made anew only where one of its curves, or what is asked, is another. */
function rowsOfPart(
  part: Part,
  depth: number,
  flat: boolean,
  asked: Asked,
  { key, touched }: Since,
): CachedRows {
  const cached = rowsCache.get(part);
  const chosenPart = asked.chosenParts.has(part.id);
  const isAsBefore = cached?.key === key && touched?.has(part.id) === false;
  if (isAsBefore && cached.depth === depth && cached.chosenPart === chosenPart) return cached;
  const channels = channelRows(part, depth, asked);
  const own = curvesOfPart(asked.project, part);
  const list = withKindRows(part, channels, asked, flat ? 1 : depth + 1);
  const made: CachedRows = { key, depth, chosenPart, own, channels: channels.length, list };
  rowsCache.set(part, made);
  return made;
}

/** A channel of a part, with all that its row is made of but for what is asked of all of them. */
interface AskedChannel {
  readonly id: string;
  readonly property: string;
  readonly curve: Curve | undefined;
  readonly loose: readonly LooseEdit[];
  readonly driven: boolean;
  readonly chosen: boolean;
}

/** The channels of a part that may get rows: of most parts those with curves, found without a look at the others. */
function channelsOf(part: Part, asked: Asked): readonly AskedChannel[] {
  const { project, curves, looseOf, driven, chosen, set, more, query } = asked;
  if (!query.everyChannel && !set && !more.has(part.id))
    return curvesOfPart(project, part).map((curve) => {
      const property = curve.channel.slice(part.id.length + 1);
      return { id: curve.channel, property, curve, loose: NO_LOOSE, driven: false, chosen: false };
    });
  const all = namesOf(part).map(({ id, property }): AskedChannel => {
    const loose = looseOf.get(id) ?? NO_LOOSE;
    return { id, property, curve: curves.get(id), loose, driven: driven.has(id), chosen: chosen.has(id) };
  });
  if (set) return all.filter(({ id }) => set.has(id));
  if (query.everyChannel) return all;
  return all.filter((each) => each.curve || each.loose !== NO_LOOSE || each.driven || each.chosen);
}

/** The parts that channels belong to. */
function partsOf(channels: readonly string[]): ReadonlySet<string> {
  return new Set(channels.map((channel) => splitChannel(channel).part));
}

let lastKey: { readonly asked: readonly unknown[] } = { asked: [] };
/** One object as long as what is asked of all channels is the same. */
function cacheKey(
  { filter, everyChannel, collapsed, kinds, search, set }: RowsQuery,
  interlocks: Project['interlocks'] | null,
): object {
  const now: readonly unknown[] = [filter, everyChannel, collapsed, kinds, search, set, interlocks];
  const same = now.length === lastKey.asked.length && now.every((each, i) => each === lastKey.asked[i]);
  if (!same) lastKey = { asked: now };
  return lastKey;
}

interface Asked {
  readonly project: Project;
  readonly curves: CurveIndex;
  readonly driven: ReadonlySet<string>;
  readonly looseOf: ReadonlyMap<string, readonly LooseEdit[]>;
  /** The parts of which a channel may be alive without a curve: one is driven, chosen or loosely edited. */
  readonly more: ReadonlySet<string>;
  readonly closed: ReadonlySet<string>;
  readonly chosen: ReadonlySet<string>;
  /** The chosen parts, where only what is chosen shows; else empty, as it changes nothing. */
  readonly chosenParts: ReadonlySet<string>;
  readonly set: ReadonlySet<string> | null;
  /** The channels that interlocks tie, where only these show; else empty. */
  readonly tied: ReadonlySet<string>;
  readonly query: RowsQuery;
}
const NO_TIES: ReadonlySet<string> = new Set();

/** The curves of a part and of all below it. */
function curvesBelow(project: Project, part: Part): readonly Curve[] {
  const below = new Set(withDescendants(project.parts, part.id));
  return project.parts.filter(({ id }) => below.has(id)).flatMap((each) => curvesOfPart(project, each));
}

/** The curves of those that have one. */
function curvesAmong(all: readonly { readonly curve: Curve | undefined }[]): readonly Curve[] {
  const curves: Curve[] = [];
  for (const { curve } of all) if (curve) curves.push(curve);
  return curves;
}

/** A row of which the depth may still change, as nobody has it yet. */
type NewRow = { -readonly [name in keyof ChannelRow]: ChannelRow[name] };

/** A row over the channels of each kind that has several; these then stand one deeper. */
function withKindRows(part: Part, channels: readonly NewRow[], asked: Asked, depth: number): Row[] {
  const rows: Row[] = [];
  for (let i = 0; i < channels.length;) {
    const { kind } = channels[i]!.label;
    let end = i;
    while (channels[end]?.label.kind === kind) end++;
    const group = channels.slice(i, end);
    i = end;
    if (group.length < KIND_ROW_FROM) {
      rows.push(...group);
      continue;
    }
    const id = `${part.id}#${kind}`;
    const open = !asked.closed.has(id);
    const curves = curvesAmong(group);
    const ids = group.map((row) => row.id);
    rows.push({ kind: 'kind', id, name: kind, part, depth, open, opens: true, curves, channels: ids });
    if (!open) continue;
    for (const row of group) {
      row.depth++;
      rows.push(row);
    }
  }
  return rows;
}

function channelRows(part: Part, depth: number, asked: Asked): NewRow[] {
  const { chosenParts, set, tied, query } = asked;
  const indent = (query.filter !== 'all' || query.search !== '' || set ? 0 : depth) + 1;
  const rows: NewRow[] = [];
  for (const { id, property, curve, loose, driven, chosen } of channelsOf(part, asked)) {
    if (query.filter === 'keyed' && !curve) continue;
    if (query.filter === 'tied' && !tied.has(id)) continue;
    if (query.filter === 'off' && !curve?.keys.some(({ frame }) => !Number.isInteger(frame))) continue;
    if (query.filter === 'selected' && !chosenParts.has(part.id) && !chosen) continue;
    const label = labelOf(part, property);
    if (!query.kinds.includes(label.kind)) continue;
    if (query.search !== '' && !hasWords(`${part.name} ${label.short}`, query.search)) continue;
    rows.push({ kind: 'channel', id, part, depth: indent, label, curve, driven, loose });
  }
  return rows;
}

const NO_LOOSE: readonly LooseEdit[] = [];

function groupLoose(loose: readonly LooseEdit[]): Map<string, readonly LooseEdit[]> {
  const map = new Map<string, readonly LooseEdit[]>();
  for (const edit of loose) map.set(edit.channel, [...(map.get(edit.channel) ?? []), edit]);
  return map;
}

/** The curves whose keys a row's pegs are or stand for. */
export function curvesOfRow(row: Row): readonly Curve[] {
  if (row.kind === 'span' || row.kind === 'thread') return [];
  if (row.kind !== 'channel') return row.curves;
  return row.curve ? [row.curve] : [];
}
