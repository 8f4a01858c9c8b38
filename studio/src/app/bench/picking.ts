/** A list with something added, or taken out where it was there: what Ctrl does to a selection. */
export function toggled<T>(list: readonly T[], item: T): readonly T[] {
  return list.includes(item) ? list.filter((other) => other !== item) : [...list, item];
}
