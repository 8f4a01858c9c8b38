import { channelName, partOf, partProperties, type Project, type Result } from '../../project';
import { hash } from '../../curve';
import { refused } from '../links/refused';
import { addDriver } from './drivers';

/** How parts in a row copy a first one. */
export interface EchoRow {
  /** Properties that are copied: `translate.y`, `rotate.z`. */
  readonly properties: readonly string[];
  /** Frames by which each is later than the one before it. */
  readonly delay: number;
  /** How much of the motion each shows of what the one before it does. */
  readonly gain: number;
  /** The moments between which what the first one does is copied; null: from ever, for ever. */
  readonly from: number | null;
  readonly to: number | null;
  /** Every other one the other way round. */
  readonly alternate: boolean;
  /** Frames by which each may come earlier or later than that, and the seed of what comes of it. */
  readonly vary: number;
  readonly seed: number;
}

/**
 * Has parts copy a first one, each a bit later and weaker than the one before it, live from the first one's curves. Drivers that they
 * have on those channels give way.
 */
export function echoRow(
  project: Project,
  leader: string,
  others: readonly string[],
  row: EchoRow,
): Result<Project> {
  let made = project;
  let count = 0;
  for (const [i, id] of others.entries()) {
    const part = partOf(project, id);
    if (!part || id === leader) continue;
    const has = new Set(partProperties(part).map(({ property }) => property));
    for (const property of row.properties) {
      if (!has.has(property)) continue;
      const target = channelName(id, property);
      const drivers = made.drivers.filter((driver) => driver.target !== target);
      const sign = row.alternate && i % 2 === 0 ? -1 : 1;
      const added = addDriver({ ...made, drivers }, 'echo', target, {
        input: channelName(leader, property),
        delay: tidy(row.delay * (i + 1) + row.vary * wander(row.seed, i)),
        gain: tidy(sign * row.gain ** (i + 1)),
        from: row.from,
        to: row.to,
      });
      if (!added.ok) return added;
      made = added.value.project;
      count++;
    }
  }
  return count > 0 ? { ok: true, value: made } : refused('None of these parts has such a channel');
}

/** A number from −1 to 1 that a seed gives a place in a row (the hash of contract §5). */
export function wander(seed: number, place: number): number {
  return (2 * hash((hash(seed) + place) | 0)) / 2 ** 32 - 1;
}

/** Without the last digits that a power of a short number has. */
export function tidy(value: number): number {
  return Number(value.toFixed(9));
}
