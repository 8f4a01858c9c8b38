import type { ChannelKind, Curve, Part } from '@kaizen/core';
import type { LooseEdit } from '../../state/document';
import type { ChannelLabel } from '../stage/channel-label';
import type { SpanRow } from './span-rows';
import type { ThreadRow } from './thread-rows';

/** A row that stands for several channels: of a part, or of one kind of it. Its pegs stand for the keys of its curves. */
interface SummaryRow {
  readonly id: string;
  readonly part: Part;
  readonly depth: number;
  readonly open: boolean;
  /** The curves that its summary pegs stand for. */
  readonly curves: readonly Curve[];
  readonly opens: boolean;
}
export interface PartRow extends SummaryRow {
  readonly kind: 'part';
}
export interface KindRow extends SummaryRow {
  readonly kind: 'kind';
  readonly name: ChannelKind;
  readonly channels: readonly string[];
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
export type Row = PartRow | KindRow | ChannelRow | SpanRow | ThreadRow;
