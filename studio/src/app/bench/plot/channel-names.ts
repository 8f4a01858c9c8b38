import { partProperties, type Part } from '@kaizen/core';

/** A channel of a part: its id, and which of the part's properties it is. */
export interface NamedChannel {
  readonly id: string;
  readonly property: string;
}
const namesCache = new WeakMap<Part, readonly NamedChannel[]>();
/** A part's channels by name, made once a part. */
export function namesOf(part: Part): readonly NamedChannel[] {
  let names = namesCache.get(part);
  if (!names) {
    names = partProperties(part).map(({ property }) => ({ id: `${part.id}/${property}`, property }));
    namesCache.set(part, names);
  }
  return names;
}
