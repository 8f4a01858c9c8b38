import type { Axis, Vec3 } from '../project';

/** Lengths whose width is remembered. */
const MOST_KNOWN = 1000;

/** The bounds of a rounded squash, counted from the anchor along the axis, in metres. */
export interface BulgeBounds {
  readonly axis: Axis;
  readonly anchor: Vec3;
  readonly from: number;
  readonly to: number;
}

/**
 * A rounded squash (contract, second edition): across the axis a slice at u in [−1, 1] is made 1 + β(1 − u²) times as wide, and
 * along it as much shorter as keeps its volume; β so that the whole gets k times as long.
 */
export class Bulge {
  private k = 1;
  private beta = 0;
  /** What was found for a length before: going to and fro between a few is the rule. */
  private readonly known = new Map<number, { readonly beta: number; readonly anchorWay: number }>();

  /** The way from the middle of the bounds to the anchor, which stays. */
  private anchorWay: number;

  constructor(private readonly bounds: BulgeBounds) {
    this.anchorWay = this.way(0);
  }

  /** Sets how long the bounded stretch becomes, as a factor. */
  setLength(k: number): void {
    if (k === this.k) return;
    this.k = k;
    const known = this.known.get(k);
    this.beta = known?.beta ?? widthFor(k);
    this.anchorWay = known?.anchorWay ?? this.way(0);
    if (known) return;
    if (this.known.size >= MOST_KNOWN) this.known.clear();
    this.known.set(k, { beta: this.beta, anchorWay: this.anchorWay });
  }

  /** Moves a point of the part's own space in place. */
  move(point: Float64Array): void {
    const { axis, anchor, from, to } = this.bounds;
    const along = 'xyz'.indexOf(axis);
    const s = point[along]! - anchor[along]!;
    const u = (2 * s - from - to) / (to - from);
    const wider = Math.abs(u) < 1 ? 1 + this.beta * (1 - u * u) : 1;
    for (let row = 0; row < 3; row++)
      if (row !== along) point[row] = anchor[row]! + (point[row]! - anchor[row]!) * wider;
    point[along] = anchor[along]! + this.way(s) - this.anchorWay;
  }

  /** ∫ ds/a² from the middle of the bounds. */
  private way(s: number): number {
    const { from, to } = this.bounds;
    const half = (to - from) / 2;
    if (s >= to) return half * this.k + (s - to);
    if (s <= from) return -half * this.k + (s - from);
    return half * lengthUpTo((2 * s - from - to) / (to - from), this.beta);
  }
}

/** ∫₀ᵘ dv/(1 + β(1 − v²))²: by the partial fraction u/(2A(A − βu²)) and ∫ dv/(A − βv²), A = 1 + β. */
function lengthUpTo(u: number, beta: number): number {
  const a = 1 + beta;
  const plain = (u / a) * growth((beta * u * u) / a);
  return u / (2 * a * (a - beta * u * u)) + plain / (2 * a);
}

/** atanh(√x)/√x, for negative x atan(√−x)/√−x. */
function growth(x: number): number {
  if (Math.abs(x) < 1e-3) return 1 + x * (1 / 3 + x * (1 / 5 + x * (1 / 7 + x * (1 / 9 + x / 11))));
  const root = Math.sqrt(Math.abs(x));
  return x > 0 ? Math.atanh(root) / root : Math.atan(root) / root;
}

/** β > −1 at which the stretch gets k times as long, by halving in log(1 + β): the length falls as β grows. */
function widthFor(k: number): number {
  if (k === 1) return 0;
  let [low, high] = [-40, 40];
  for (let round = 0; round < 120 && high - low > 1e-17; round++) {
    const middle = (low + high) / 2;
    if (lengthUpTo(1, Math.expm1(middle)) > k) low = middle;
    else high = middle;
  }
  return Math.expm1((low + high) / 2);
}
