import { advanceJet, type Jet } from '../law';

/** The orders that are looked at: a value that jumps, a speed, an acceleration. */
const ORDERS = [0, 1, 2] as const;
/** What Taylor's series misses by less than this share of an order's span is no jump. */
const NOTICED = 0.02;
/** And this is rounding: in the channel's unit, per frame and per frame squared. */
const ROUNDED = 1e-9;
/** So many places are looked at, those that are missed most; a function that samples cannot follow has more. */
const MOST_SUSPECTS = 64;
/** Between two samples no more corners are told apart than halves of halves have, so often: a noise finer than a pixel is one all over. */
const MOST_ROUNDS = 3;
/** How near, in frames, a corner is enclosed. */
const NEAR = 1e-7;
type Order = (typeof ORDERS)[number];
/** A function's value and rates at a frame. */
export interface JetSample {
  readonly frame: number;
  readonly jet: Jet;
}

/**
 * Frames where a function's value, speed or acceleration jumps though nothing in its making tells where: a clamp is met, a mechanism
 * engages. `pieces` are the function's samples between the corners that are known, rising; wherever Taylor's series of one misses the
 * next, the place is enclosed by halving. A jump there and back between two samples may be missed.
 */
export function hiddenCorners(
  jet: (frame: number) => Jet,
  pieces: readonly (readonly JetSample[])[],
): readonly number[] {
  const least = leastJumps(pieces.flat());
  const suspects = pieces.flatMap((samples) => suspectsOf(samples, least));
  if (suspects.length > MOST_SUSPECTS) suspects.sort((a, b) => b.times - a.times);
  return suspects
    .slice(0, MOST_SUSPECTS)
    .flatMap(({ from, to }) => cornersBetween(jet, from, to, least, MOST_ROUNDS))
    .sort((a, b) => a - b);
}

/** Two samples between which an order may jump, and how many times the least that counts it is missed by. */
interface Suspect {
  readonly from: JetSample;
  readonly to: JetSample;
  readonly times: number;
}

function suspectsOf(samples: readonly JetSample[], least: readonly number[]): readonly Suspect[] {
  const found: Suspect[] = [];
  for (let i = 1; i < samples.length; i++) {
    const [from, to] = [samples[i - 1]!, samples[i]!];
    const expected = advanceJet(from.jet, to.frame - from.frame);
    let times = 0;
    for (const order of ORDERS) times = Math.max(times, gap(expected, to.jet, order) / least[order]!);
    if (times > 1) found.push({ from, to, times });
  }
  return found;
}

function sampleAt(jet: (frame: number) => Jet, frame: number): JetSample {
  return { frame, jet: jet(frame) };
}

/** By how much each order has to jump: by a share of its span, and by more than rounding and differences leave in a rate. */
function leastJumps(samples: readonly JetSample[]): readonly number[] {
  const ranges = ORDERS.map((order) => {
    let [low, high] = [Infinity, -Infinity];
    for (const { jet } of samples) {
      if (!Number.isFinite(jet[order])) continue;
      low = Math.min(low, jet[order]);
      high = Math.max(high, jet[order]);
    }
    return high >= low ? { span: high - low, most: Math.max(Math.abs(low), Math.abs(high)) } : NOTHING;
  });
  const speed = ranges[1]!.most;
  return ranges.map(({ span, most }) => Math.max(NOTICED * span, 1e-3 * most, 1e-6 * speed, ROUNDED));
}
const NOTHING = { span: 0, most: 0 };

/** The jumps between two samples; beside each one found, more are looked for as many `rounds` deep. */
function cornersBetween(
  jet: (frame: number) => Jet,
  from: JetSample,
  to: JetSample,
  least: readonly number[],
  rounds: number,
): readonly number[] {
  if (rounds === 0) return [];
  for (const order of ORDERS) {
    const found = enclosed(jet, from, to, order, least[order]!);
    if (!found) continue;
    const [before, after] = found;
    return [
      ...cornersBetween(jet, from, before, least, rounds - 1),
      after.frame,
      ...cornersBetween(jet, after, to, least, rounds - 1),
    ];
  }
  return [];
}

/** The samples just before and just after a jump of an order between two others, or null where there is none. */
function enclosed(
  jet: (frame: number) => Jet,
  from: JetSample,
  to: JetSample,
  order: Order,
  least: number,
): readonly [JetSample, JetSample] | null {
  let [a, b] = [from, to];
  if (!(missed(a, b, order) > least) || b.frame - a.frame <= NEAR) return null;
  while (b.frame - a.frame > NEAR) {
    const middle = sampleAt(jet, (a.frame + b.frame) / 2);
    const [left, right] = [missed(a, middle, order), missed(middle, b, order)];
    if (!(Math.max(left, right) > least)) return null;
    if (left >= right) b = middle;
    else a = middle;
  }
  return [a, b];
}

/** By how much Taylor's series of one sample misses another. */
function missed(from: JetSample, to: JetSample, order: Order): number {
  return gap(advanceJet(from.jet, to.frame - from.frame), to.jet, order);
}

/** How far two jets are apart in an order; nothing where either is not finite. */
function gap(a: Jet, b: Jet, order: Order): number {
  const by = Math.abs(b[order] - a[order]);
  return Number.isFinite(by) ? by : 0;
}
