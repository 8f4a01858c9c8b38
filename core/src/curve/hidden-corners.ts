import type { Jet } from '../law';

/** The orders that are looked at: a value that jumps, a speed, an acceleration. */
const ORDERS = [0, 1, 2] as const;
/** What Taylor's series misses by less than this share of an order's span is no jump. */
const NOTICED = 0.02;
/** How near, in frames, a corner is enclosed. */
const NEAR = 1e-7;
/** So far beside a known corner, in frames, what lies next to it is read. */
const BESIDE = 1e-5;

type Order = (typeof ORDERS)[number];
interface Sample {
  readonly frame: number;
  readonly jet: Jet;
}

/**
 * Frames where a function's value, speed or acceleration jumps though nothing in its making tells where: a clamp is met, a mechanism
 * engages. `stops` (frames, rising) are the corners that are known; between each two the function is sampled about every `step` frames,
 * and wherever Taylor's series of one sample misses the next, the place is enclosed by halving. A jump there and back within one step
 * may be missed.
 */
export function hiddenCorners(
  jet: (frame: number) => Jet,
  stops: readonly number[],
  step: number,
): readonly number[] {
  const pieces = stops.slice(1).map((end, i) => sampled(jet, stops[i]!, end, step));
  const least = ORDERS.map((order) => NOTICED * spanOf(pieces.flat(), order));
  return pieces.flatMap((samples) =>
    samples.slice(1).flatMap((to, i) => cornersBetween(jet, samples[i]!, to, least)),
  );
}

function sampled(jet: (frame: number) => Jet, start: number, end: number, step: number): readonly Sample[] {
  const beside = Math.min(BESIDE, (end - start) / 4);
  const count = Math.max(1, Math.ceil((end - start) / step));
  return Array.from({ length: count + 1 }, (_, i) => {
    const frame = start + (i * (end - start)) / count;
    return sampleAt(jet, Math.min(end - beside, Math.max(start + beside, frame)));
  });
}

function sampleAt(jet: (frame: number) => Jet, frame: number): Sample {
  return { frame, jet: jet(frame) };
}

function spanOf(samples: readonly Sample[], order: Order): number {
  let [low, high] = [Infinity, -Infinity];
  for (const { jet } of samples) {
    if (!Number.isFinite(jet[order])) continue;
    low = Math.min(low, jet[order]);
    high = Math.max(high, jet[order]);
  }
  return high > low ? high - low : 0;
}

function cornersBetween(
  jet: (frame: number) => Jet,
  from: Sample,
  to: Sample,
  least: readonly number[],
): readonly number[] {
  for (const order of ORDERS) {
    const found = enclosed(jet, from, to, order, least[order]!);
    if (!found) continue;
    const [before, after] = found;
    return [
      ...cornersBetween(jet, from, before, least),
      after.frame,
      ...cornersBetween(jet, after, to, least),
    ];
  }
  return [];
}

/** The samples just before and just after a jump of an order between two others, or null where there is none. */
function enclosed(
  jet: (frame: number) => Jet,
  from: Sample,
  to: Sample,
  order: Order,
  least: number,
): readonly [Sample, Sample] | null {
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

/** By how much Taylor's series of one sample misses another; nothing where either is not finite. */
function missed(from: Sample, to: Sample, order: Order): number {
  const [v, d1, d2, d3] = from.jet;
  const h = to.frame - from.frame;
  const expected = [
    v + h * (d1 + h * (d2 / 2 + (h * d3) / 6)),
    d1 + h * (d2 + (h * d3) / 2),
    d2 + h * d3,
  ] as const;
  const by = Math.abs(to.jet[order] - expected[order]);
  return Number.isFinite(by) ? by : 0;
}
