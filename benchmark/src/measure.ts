/** How long one call takes in milliseconds, as the median of several rounds of as many calls as fill a round. */
export interface Timed {
  readonly name: string;
  readonly run: () => void;
}

const ROUNDS = 15;
/** Rounds that are not counted: until every contender runs as the compiler leaves it in the end. */
const WARM_UP = 5;
const ROUND_MS = 120;

/**
 * Times several things in one run, turn by turn, so that whatever else the machine does meets all of them alike. Gives the
 * median milliseconds a call, in their order.
 */
export function measure(things: readonly Timed[]): number[] {
  const calls = things.map(({ run }) => {
    for (let i = 0; i < 3; i++) run();
    const began = performance.now();
    let count = 0;
    while (performance.now() - began < ROUND_MS) {
      run();
      count++;
    }
    return Math.max(1, count);
  });
  const times: number[][] = things.map(() => []);
  for (let round = 0; round < WARM_UP + ROUNDS; round++) {
    things.forEach(({ run }, i) => {
      const count = calls[i]!;
      const began = performance.now();
      for (let k = 0; k < count; k++) run();
      if (round >= WARM_UP) times[i]!.push((performance.now() - began) / count);
    });
  }
  return times.map(median);
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

/** One measured ratio, what it has to be, and whether it is. */
export interface Result {
  readonly what: string;
  readonly measured: string;
  readonly wanted: string;
  readonly good: boolean;
}

/** Numbers that look the same on every run, without a seed that has to be kept: a linear congruence. */
export function steadyNumbers(): () => number {
  let state = 12345;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
