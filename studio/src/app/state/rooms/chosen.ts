import type { Pointers } from '../pointers';
import { field, flag, listOf, number, oneOf, orNull, shaped, text, type Field } from './field';

const key = shaped({ channel: text, frame: number });
const handle = shaped({ channel: text, frame: number, side: oneOf('in', 'out') });

/** What is chosen, and all else that points into the project. */
export const chosenFields: { readonly [N in keyof Pointers]: Field<Pointers[N]> } = {
  parts: field([], listOf(text)),
  channels: field([], listOf(text)),
  keys: field([], listOf(key)),
  handles: field([], listOf(handle)),
  only: field(null, orNull(text)),
  lane: field(null, orNull(text)),
  pinned: field([], listOf(text)),
  stakes: field([], listOf(shaped({ from: number, to: number }))),
  held: field(
    { on: false, released: null },
    shaped({ on: flag, released: orNull(shaped({ start: number, end: number })) }),
  ),
};
