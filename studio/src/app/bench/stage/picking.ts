import type { BenchState } from '../../state/bench';

/** A list with something added, or taken out where it was there: what Ctrl does to a selection. */
export function toggled<T>(list: readonly T[], item: T): readonly T[] {
  return list.includes(item) ? list.filter((other) => other !== item) : [...list, item];
}

/** The sheet that shows once keys or a channel are chosen: Curve stays where one works on curves as a whole, else the keys'. */
export function sheetFor(sheet: string): string {
  return sheet === 'curve' ? 'curve' : 'key';
}

/** The sheet that shows once a part is chosen: Links stays where one works on links, else Part. */
export function partSheetFor(sheet: string): string {
  return sheet === 'links' ? 'links' : 'part';
}

/** The channels that a selection names: those of the chosen keys, else the chosen ones. */
export function namedChannels({ keys, channels }: Pick<BenchState, 'keys' | 'channels'>): readonly string[] {
  return keys.length > 0 ? [...new Set(keys.map(({ channel }) => channel))] : channels;
}
