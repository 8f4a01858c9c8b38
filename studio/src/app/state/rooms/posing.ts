import type { ChannelKind } from '@kaizen/core';
import { ALL_KINDS, kindList } from './chart';
import { field, flag, listOf, orNull, shaped, text } from './field';

export interface Capture {
  readonly on: boolean;
  readonly startNew: boolean;
  /** The first key of a channel away from the range's start brings one with the old value there. */
  readonly markStart: boolean;
  /** The same where the range ends: what moves comes back to its old value there. */
  readonly markEnd: boolean;
  readonly scope: readonly ChannelKind[];
  /** The parts it takes; null: all. */
  readonly parts: readonly string[] | null;
}

/** What posing keys by itself. */
export const posingFields = {
  capture: field<Capture>(
    { on: false, startNew: false, markStart: true, markEnd: false, scope: ALL_KINDS, parts: null },
    shaped({
      on: flag,
      startNew: flag,
      markStart: flag,
      markEnd: flag,
      scope: kindList,
      parts: orNull(listOf(text)),
    }),
  ),
};
