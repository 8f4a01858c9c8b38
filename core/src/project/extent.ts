/** The least of some numbers; Infinity where there is none. Any number of them: a spread into `Math.min` runs out of stack at some 100,000. */
export function leastOf(numbers: Iterable<number>): number {
  let least = Infinity;
  for (const number of numbers) if (!(number >= least)) least = number;
  return least;
}

/** The greatest of some numbers; −Infinity where there is none. */
export function greatestOf(numbers: Iterable<number>): number {
  let greatest = -Infinity;
  for (const number of numbers) if (!(number <= greatest)) greatest = number;
  return greatest;
}

/** The least and the greatest of some frames. */
export function spanOf(frames: Iterable<number>): { readonly first: number; readonly last: number } {
  let [first, last] = [Infinity, -Infinity];
  for (const frame of frames) {
    first = Math.min(first, frame);
    last = Math.max(last, frame);
  }
  return { first, last };
}
