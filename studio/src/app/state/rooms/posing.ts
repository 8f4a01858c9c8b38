import type { ChannelKind } from '@kaizen/core';
import { ALL_KINDS, kindList } from './chart';
import { field, flag, listOf, orNull, shaped, text } from './field';

export interface Capture {
  readonly on: boolean;
  readonly startNew: boolean;
  /** The first key of a channel away from the range's start brings one with the old value there. */
  readonly markStart: boolean;
  readonly scope: readonly ChannelKind[];
  /** The parts it takes; null: all. */
  readonly parts: readonly string[] | null;
}

/** What posing keys by itself. */
export const posingFields = {
  capture: field<Capture>(
    { on: false, startNew: false, markStart: true, scope: ALL_KINDS, parts: null },
    shaped({ on: flag, startNew: flag, markStart: flag, scope: kindList, parts: orNull(listOf(text)) }),
  ),
};
