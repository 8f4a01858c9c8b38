import { mat3, vec3 } from 'gl-matrix';

/** A window has at most so many samples on a side. */
const WIDEST = 24;

/**
 * Slopes of sampled values just before and just after each frame, by least squares: a parabola over as many neighbours as it meets within half the
 * tolerance, on both sides where they agree, so that small unrest of the samples is smoothed; else each side by itself, so that corners stay.
 */
export function windowSlopes(
  frames: Float64Array,
  values: Float64Array,
  tolerance: number,
): { readonly before: Float64Array; readonly after: Float64Array } {
  const count = frames.length;
  const before = new Float64Array(count);
  const after = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    const both = i > 0 && i < count - 1 ? widest(frames, values, i, 1, 1, tolerance / 2) : null;
    if (both !== null) {
      before[i] = after[i] = both;
      continue;
    }
    before[i] = i > 0 ? (widest(frames, values, i, 1, 0, tolerance / 2) ?? chord(frames, values, i - 1)) : 0;
    after[i] =
      i < count - 1 ? (widest(frames, values, i, 0, 1, tolerance / 2) ?? chord(frames, values, i)) : 0;
  }
  return { before, after };
}

function chord(frames: Float64Array, values: Float64Array, i: number): number {
  return (values[i + 1]! - values[i]!) / (frames[i + 1]! - frames[i]!);
}

/** The slope at a sample by the widest window that fits; null where not even the narrowest does. */
function widest(
  frames: Float64Array,
  values: Float64Array,
  i: number,
  left: 0 | 1,
  right: 0 | 1,
  within: number,
): number | null {
  let slope: number | null = null;
  for (let half = left && right ? 2 : 3; half <= WIDEST; half = Math.ceil(half * 1.5)) {
    const from = Math.max(0, i - left * half);
    const to = Math.min(frames.length - 1, i + right * half);
    if (to - from < 2) return slope;
    const tried = parabola(frames, values, i, from, to);
    if (!(tried.miss <= within)) return slope;
    slope = tried.slope;
  }
  return slope;
}

/** Least squares of v = v_i + s·x + c·x² over a window, x from the sample on: its slope there and how far it misses. */
function parabola(frames: Float64Array, values: Float64Array, i: number, from: number, to: number) {
  let [n, x1, x2, x3, x4, y0, y1, y2] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (let k = from; k <= to; k++) {
    const x = frames[k]! - frames[i]!;
    const y = values[k]! - values[i]!;
    n += 1;
    x1 += x;
    x2 += x * x;
    x3 += x ** 3;
    x4 += x ** 4;
    y0 += y;
    y1 += x * y;
    y2 += x * x * y;
  }
  const normal: mat3 = [n, x1, x2, x1, x2, x3, x2, x3, x4];
  const inverse = mat3.invert(normal, normal);
  if (!inverse) return { slope: 0, miss: Infinity };
  const solved: [number, number, number] = [y0, y1, y2];
  vec3.transformMat3(solved, solved, inverse);
  const [level, slope, bend] = solved;
  let miss = 0;
  for (let k = from; k <= to; k++) {
    const x = frames[k]! - frames[i]!;
    miss = Math.max(miss, Math.abs(level + x * (slope + x * bend) - (values[k]! - values[i]!)));
  }
  return { slope, miss };
}
