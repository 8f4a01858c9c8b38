/**
 * The places at which two lists hold different things, as far as both go. One small function for all lists, parts, curves and
 * drivers, so that it is soon compiled: after every edit it walks through all of a project.
 */
export function changedPlaces(before: readonly unknown[], after: readonly unknown[]): readonly number[] {
  const changed: number[] = [];
  if (before === after) return changed;
  const most = Math.min(before.length, after.length);
  for (let i = 0; i < most; i++) if (before[i] !== after[i]) changed.push(i);
  return changed;
}

/** A list with one thing put in the place of another. */
export function replacedAt<T>(list: readonly T[], place: number, thing: T): readonly T[] {
  const next = list.slice();
  next[place] = thing;
  return next;
}
