import { changedPlaces, splitChannel, type Curve } from '@kaizen/core';
import type { LooseEdit } from '../../state/document';

/** What the rows of the Chart are made of, besides their parts; `key` stands for the rest of what is asked of them. */
export interface Sources {
  readonly curves: readonly Curve[];
  readonly driven: ReadonlySet<string>;
  readonly loose: readonly LooseEdit[];
  readonly query: { readonly channels: readonly string[] };
  readonly key: object;
}
let lastSources: Sources | null = null;

/** The parts of which anything is otherwise than when rows were asked for last; null where the rest of what is asked is. */
export function touchedSince(now: Sources): ReadonlySet<string> | null {
  const before = lastSources;
  lastSources = now;
  if (before?.key !== now.key) return null;
  const touched = [
    ...changedCurves(before.curves, now.curves),
    ...(before.driven === now.driven ? [] : inOneOnly(before.driven, now.driven)),
    ...(before.query.channels === now.query.channels
      ? []
      : inOneOnly(new Set(before.query.channels), new Set(now.query.channels))),
    ...(before.loose === now.loose ? [] : [before, now].flatMap(({ loose }) => loose.map(channelOf))),
  ];
  return new Set(touched.map((channel) => splitChannel(channel).part));
}

function channelOf({ channel }: { readonly channel: string }): string {
  return channel;
}

/** The channels of which the curve is another, before or now. */
function changedCurves(before: readonly Curve[], now: readonly Curve[]): readonly string[] {
  const changed = changedPlaces(before, now);
  const most = Math.min(before.length, now.length);
  return [before, now].flatMap((curves) =>
    [...changed.map((place) => curves[place]!), ...curves.slice(most)].map(channelOf),
  );
}

/** The names that stand in one of two sets and not in the other. */
function inOneOnly(a: ReadonlySet<string>, b: ReadonlySet<string>): readonly string[] {
  return [...[...a].filter((name) => !b.has(name)), ...[...b].filter((name) => !a.has(name))];
}
