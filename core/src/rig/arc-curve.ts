import type { Vec3 } from '../project';

/** Stretches of a segment whose lengths are kept, and points of the Gauss–Legendre rule on each. */
const STRETCHES = 16;
const POINTS = 12;

/** A cubic a + u(b + u(c + u·d)) for u in [0, 1], coordinate by coordinate. */
type Cubic = readonly [Vec3, Vec3, Vec3, Vec3];

/**
 * A centripetal Catmull–Rom curve through points (Yuksel, Schaefer, Keyser 2011; open ends use the mirrored neighbour 2p0 − p1),
 * read by its arc length in metres: modulo the length where it is closed, kept to its ends where it is open.
 */
export class ArcCurve {
  readonly length: number;
  private readonly cubics: readonly Cubic[];
  /** Arc length up to the end of each stretch, after a leading 0. */
  private readonly lengths: Float64Array;

  constructor(
    points: readonly Vec3[],
    private readonly closed: boolean,
  ) {
    this.cubics = cubicsThrough(points, closed);
    const lengths = [0];
    for (const cubic of this.cubics)
      for (let i = 0; i < STRETCHES; i++)
        lengths.push(lengths.at(-1)! + lengthOf(cubic, i / STRETCHES, (i + 1) / STRETCHES));
    this.lengths = Float64Array.from(lengths);
    this.length = lengths.at(-1)!;
  }

  /** Writes the point at an arc length and the direction there, which is not a unit vector. */
  at(distance: number, point: Float64Array, tangent: Float64Array): void {
    const { length } = this;
    let s = this.closed ? distance - length * Math.floor(distance / length) : distance;
    if (!(s > 0) || this.cubics.length === 0) s = 0;
    if (s > length) s = length;
    const stretch = this.stretchOf(s);
    const cubic = this.cubics[Math.min(this.cubics.length - 1, Math.floor(stretch / STRETCHES))]!;
    const from = (stretch % STRETCHES) / STRETCHES;
    const u = this.solve(
      cubic,
      from,
      s - this.lengths[stretch]!,
      this.lengths[stretch + 1]! - this.lengths[stretch]!,
    );
    for (let row = 0; row < 3; row++) {
      const [a, b, c, d] = [cubic[0][row]!, cubic[1][row]!, cubic[2][row]!, cubic[3][row]!];
      point[row] = a + u * (b + u * (c + u * d));
      tangent[row] = b + u * (2 * c + u * 3 * d);
    }
  }

  private stretchOf(s: number): number {
    let [low, high] = [0, this.lengths.length - 2];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.lengths[middle + 1]! > s) high = middle;
      else low = middle + 1;
    }
    return low;
  }

  /** The parameter at which so much of a stretch is behind: Newton's steps, kept inside by halving. */
  private solve(cubic: Cubic, from: number, way: number, whole: number): number {
    if (!(whole > 0)) return from;
    let [low, high] = [from, from + 1 / STRETCHES];
    let u = from + way / whole / STRETCHES;
    for (let round = 0; round < 40; round++) {
      const gap = lengthOf(cubic, from, u) - way;
      if (Math.abs(gap) <= 1e-15 * Math.max(1, this.length)) break;
      if (gap > 0) high = u;
      else low = u;
      const next = u - gap / speedOf(cubic, u);
      u = next > low && next < high ? next : (low + high) / 2;
    }
    return u;
  }
}

function cubicsThrough(given: readonly Vec3[], closed: boolean): readonly Cubic[] {
  const points = given.filter((point, i) => i === 0 || distance(point, given[i - 1]!) > 0);
  if (closed && points.length > 1 && distance(points[0]!, points.at(-1)!) === 0) points.pop();
  const count = points.length;
  if (count < 2) return [[points[0] ?? [0, 0, 0], [0, 0, 0], [0, 0, 0], [0, 0, 0]]];
  const at = (i: number): Vec3 => {
    if (closed) return points[(i + count) % count]!;
    if (i < 0) return mirrored(points[0]!, points[1]!);
    return i < count ? points[i]! : mirrored(points[count - 1]!, points[count - 2]!);
  };
  return Array.from({ length: closed ? count : count - 1 }, (_, i) =>
    cubicBetween(at(i - 1), at(i), at(i + 1), at(i + 2)),
  );
}

function mirrored(end: Vec3, next: Vec3): Vec3 {
  return [2 * end[0] - next[0], 2 * end[1] - next[1], 2 * end[2] - next[2]];
}

function distance(a: Vec3, b: Vec3): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

/** The piece from p1 to p2; knots are apart by the square root of the points' distance. */
function cubicBetween(p0: Vec3, p1: Vec3, p2: Vec3, p3: Vec3): Cubic {
  const [h0, h1, h2] = [distance(p0, p1), distance(p1, p2), distance(p2, p3)].map(Math.sqrt) as [
    number,
    number,
    number,
  ];
  const each = (row: number): readonly [number, number, number, number] => {
    const [a, b, c, d] = [p0[row]!, p1[row]!, p2[row]!, p3[row]!];
    const m1 = h1 * ((b - a) / h0 - (c - a) / (h0 + h1) + (c - b) / h1);
    const m2 = h1 * ((c - b) / h1 - (d - b) / (h1 + h2) + (d - c) / h2);
    return [b, m1, 3 * (c - b) - 2 * m1 - m2, 2 * (b - c) + m1 + m2];
  };
  const [x, y, z] = [each(0), each(1), each(2)];
  const power = (n: number): Vec3 => [x[n]!, y[n]!, z[n]!];
  return [power(0), power(1), power(2), power(3)];
}

function speedOf(cubic: Cubic, u: number): number {
  let sum = 0;
  for (let row = 0; row < 3; row++) {
    const v = cubic[1][row]! + u * (2 * cubic[2][row]! + u * 3 * cubic[3][row]!);
    sum += v * v;
  }
  return Math.sqrt(sum);
}

function lengthOf(cubic: Cubic, from: number, to: number): number {
  const half = (to - from) / 2;
  let sum = 0;
  for (let i = 0; i < POINTS; i++)
    sum += GAUSS[2 * i + 1]! * speedOf(cubic, from + half * (1 + GAUSS[2 * i]!));
  return sum * half;
}

/** Places and weights of the Gauss–Legendre rule, by Newton's steps on the Legendre polynomial. */
const GAUSS = gaussLegendre(POINTS);

function gaussLegendre(count: number): Float64Array {
  const rule = new Float64Array(2 * count);
  for (let i = 0; i < count; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (count + 0.5));
    let slope = 1;
    for (let round = 0; round < 20; round++) {
      let [p, before] = [1, 0];
      for (let k = 1; k <= count; k++) [p, before] = [((2 * k - 1) * x * p - (k - 1) * before) / k, p];
      slope = (count * (x * p - before)) / (x * x - 1);
      x -= p / slope;
    }
    rule[2 * i] = x;
    rule[2 * i + 1] = 2 / ((1 - x * x) * slope * slope);
  }
  return rule;
}
