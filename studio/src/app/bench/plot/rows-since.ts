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

/** The parts of which a curve is another than when rows were asked for last; null where more than curves may differ. */
export function touchedSince(now: Sources): ReadonlySet<string> | null {
  const before = lastSources;
  lastSources = now;
  if (
    before?.key !== now.key ||
    before.driven !== now.driven ||
    before.loose !== now.loose ||
    before.query.channels !== now.query.channels
  )
    return null;
  const changed = changedPlaces(before.curves, now.curves);
  const most = Math.min(before.curves.length, now.curves.length);
  const touched = [before, now].flatMap(({ curves }) => [
    ...changed.map((place) => curves[place]!),
    ...curves.slice(most),
  ]);
  return new Set(touched.map(({ channel }) => splitChannel(channel).part));
}
