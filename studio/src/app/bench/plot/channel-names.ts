import { partProperties, type Part } from '@kaizen/core';
import type { ChannelLabel } from '../stage/channel-label';

/** A channel of a part: its id, and its label once that was shown. */
export interface NamedChannel {
  readonly id: string;
  readonly property: string;
  label: ChannelLabel | null;
}
const namesCache = new WeakMap<Part, readonly NamedChannel[]>();
/** A part's channels by name, made once a part; labels are made when they are first shown. */
export function namesOf(part: Part): readonly NamedChannel[] {
  let names = namesCache.get(part);
  if (!names) {
    names = partProperties(part).map(({ property }) => ({
      id: `${part.id}/${property}`,
      property,
      label: null,
    }));
    namesCache.set(part, names);
  }
  return names;
}
