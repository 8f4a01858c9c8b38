/**
 * The first place, from `from` to before `to`, of which `isPast` holds; `to` where there is none. Whatever comes after a place that is
 * past must be past too. By halving: the textbooks' binary search.
 */
export function firstWhere(from: number, to: number, isPast: (place: number) => boolean): number {
  let low = from;
  let high = to;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (isPast(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The first place in a rising list, from `from` to before `to`, whose number is not less than a number; `to` where there is none. */
export function firstAtOrAfter(
  list: ArrayLike<number>,
  number: number,
  from = 0,
  to: number = list.length,
): number {
  return firstPast(list, number, true, from, to);
}

/** The first place in a rising list, from `from` to before `to`, whose number is more than a number; `to` where there is none. */
export function firstAfter(
  list: ArrayLike<number>,
  number: number,
  from = 0,
  to: number = list.length,
): number {
  return firstPast(list, number, false, from, to);
}

/** As `firstWhere`, without calling a function at each step: it is asked thousands of times a frame. */
function firstPast(list: ArrayLike<number>, number: number, orAt: boolean, from: number, to: number): number {
  let low = from;
  let high = to;
  while (low < high) {
    const middle = (low + high) >> 1;
    const value = list[middle]!;
    if (value > number || (orAt && value === number)) high = middle;
    else low = middle + 1;
  }
  return low;
}
