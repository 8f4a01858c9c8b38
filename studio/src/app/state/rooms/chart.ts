import type { ChannelKind } from '@kaizen/core';
import { field, flag, listOf, oneOf, orNull, shaped, text } from './field';

export type Density = 'ticks' | 'curves' | 'rates';
export type RowFilter = 'all' | 'keyed' | 'selected' | 'off' | 'tied';

/** Rows of the Chart that are kept together under a name. */
export interface RowSet {
  readonly name: string;
  readonly channels: readonly string[];
}

export const ALL_KINDS: readonly ChannelKind[] = ['place', 'turn', 'size', 'squash', 'look', 'custom'];
export const kindList = listOf(oneOf(...ALL_KINDS));
const density = oneOf('ticks', 'curves', 'rates');

/** How the Chart is looked at: its rows, its halves, what its keys snap to. */
export const chartFields = {
  density: field<Density>('curves', density),
  /** The Chart split in two halves over one time; the lower one has a density of its own. */
  split: field<{ readonly on: boolean; readonly density: Density }>(
    { on: false, density: 'ticks' },
    shaped({ on: flag, density }),
  ),
  collapsed: field<readonly string[]>([], listOf(text)),
  filter: field<RowFilter>('all', oneOf('all', 'keyed', 'selected', 'off', 'tied')),
  everyChannel: field<boolean>(false, flag),
  /** The kinds of channels that have rows. */
  kinds: field(ALL_KINDS, kindList),
  rowSets: field<readonly RowSet[]>([], listOf(shaped({ name: text, channels: listOf(text) }))),
  /** The set that is all that shows; null: all rows. */
  rowSet: field<string | null>(null, orNull(text)),
  /** Summary pegs of a part stand for its own keys, or for those of all below it too. */
  summary: field<'own' | 'below'>('own', oneOf('own', 'below')),
  wholeFrames: field<boolean>(true, flag),
  /** Besides whole frames, what keys, stakes and the playhead snap to. */
  snap: field<{ readonly markers: boolean; readonly keys: boolean }>(
    { markers: false, keys: false },
    shaped({ markers: flag, keys: flag }),
  ),
};
