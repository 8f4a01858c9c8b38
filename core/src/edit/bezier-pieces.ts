import { LEAST_REACH, MOST_REACH, solveBezierTime } from '../curve';

type Four = readonly [number, number, number, number];

/** A leg by its control points, in frames and values. */
export interface Bezier {
  readonly times: Four;
  readonly values: Four;
}

/** What a reach may be beyond its bounds by rounding. */
const ROUNDING = 1e-12;

/** The shares of its length that a leg's handles reach over, the first and the last. */
export function reachesOf({ times: [t0, t1, t2, t3] }: Bezier): readonly [number, number] {
  return [(t1 - t0) / (t3 - t0), (t3 - t2) / (t3 - t0)];
}

/** A leg parted at a frame inside of it, and further where keys could not hold the reaches of a part. */
export function piecesThrough(leg: Bezier, frame: number): readonly Bezier[] {
  return partedAt(leg, frame).flatMap(bearable);
}

/** A piece in as many more pieces as it takes for keys to hold their reaches: itself nearly always. */
function bearable(piece: Bezier): readonly Bezier[] {
  if (reachesOf(piece).every((r) => r >= LEAST_REACH - ROUNDING && r <= MOST_REACH + ROUNDING))
    return [piece];
  const [t0, t1, t2, t3] = piece.times;
  const middle = (t0 + 3 * (t1 + t2) + t3) / 8;
  const whole = Math.round(middle);
  const u = parameterAt(piece, whole);
  return partedAt(piece, u > 0.2 && u < 0.8 ? whole : middle).flatMap(bearable);
}

function parameterAt({ times: [t0, t1, t2, t3] }: Bezier, frame: number): number {
  const share = (time: number) => (time - t0) / (t3 - t0);
  return solveBezierTime(share(t1), share(t2), share(frame));
}

/** Both sides of a leg at a frame inside of it. */
function partedAt(leg: Bezier, frame: number): readonly [Bezier, Bezier] {
  const u = parameterAt(leg, frame);
  const [[t0, t1, t2], [, t4, t5, t6]] = casteljau(leg.times, u);
  const [low, high] = casteljau(leg.values, u);
  return [
    { times: [t0, t1, t2, frame], values: low },
    { times: [frame, t4, t5, t6], values: high },
  ];
}

/** The control points of both sides of a Bézier parted at u. */
function casteljau([p0, p1, p2, p3]: Four, u: number): readonly [Four, Four] {
  const mix = (x: number, y: number) => x + (y - x) * u;
  const [first, middle, last] = [mix(p0, p1), mix(p1, p2), mix(p2, p3)];
  const [before, after] = [mix(first, middle), mix(middle, last)];
  const point = mix(before, after);
  return [
    [p0, first, before, point],
    [point, after, last, p3],
  ];
}
