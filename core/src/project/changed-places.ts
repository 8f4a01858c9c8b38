import { sharePlaces } from './name-places';

/** How a list came out of another: which one, by its token, and where they differ as far as both go. */
interface Origin {
  readonly token: object;
  readonly from: object | null;
  readonly places: readonly number[];
}
const origins = new WeakMap<readonly unknown[], Origin>();
const NONE: readonly number[] = [];

function originOf(list: readonly unknown[]): Origin {
  let origin = origins.get(list);
  if (!origin) origins.set(list, (origin = { token: {}, from: null, places: NONE }));
  return origin;
}

/**
 * The places at which two lists hold different things, as far as both go. Of lists that the functions below made out of each other this
 * is known; any others are walked through.
 */
export function changedPlaces(before: readonly unknown[], after: readonly unknown[]): readonly number[] {
  if (before === after) return NONE;
  const [a, b] = [origins.get(before), origins.get(after)];
  if (a && b && b.from === a.token) return b.places;
  if (a && b && a.from === b.token) return a.places;
  const changed: number[] = [];
  const most = Math.min(before.length, after.length);
  for (let i = 0; i < most; i++) if (before[i] !== after[i]) changed.push(i);
  return changed;
}

/** A list with other things at some places, and some more at its end. It is remembered what that changed. */
export function changedList<T>(
  list: readonly T[],
  changes: ReadonlyMap<number, T>,
  more: readonly T[] = [],
): readonly T[] {
  // `concat` makes room once; pushing onto a copy of thousands of things would copy them again.
  const next = more.length > 0 ? list.concat(more) : list.slice();
  for (const [place, thing] of changes) next[place] = thing;
  origins.set(next, { token: {}, from: originOf(list).token, places: [...changes.keys()] });
  sharePlaces(list, next, changes.keys());
  return next;
}

/** A list with one thing put in the place of another. */
export function replacedAt<T>(list: readonly T[], place: number, thing: T): readonly T[] {
  return changedList(list, new Map([[place, thing]]));
}

/** A list with one thing more at its end. */
export function withMore<T>(list: readonly T[], ...more: readonly T[]): readonly T[] {
  return changedList(list, NO_CHANGES, more);
}

const NO_CHANGES: ReadonlyMap<number, never> = new Map<number, never>();
