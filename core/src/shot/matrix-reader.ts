import type { Program } from '../evaluate';
import type { Jet } from '../law';
import { invertAffine, multiplyAffine } from '../rig';
import type { NodePath } from './track';

/** So far apart, in frames, a matrix is read for its slopes; less than a fit looks back from a knot. */
const STEP = 2e-5;
/** Quaternions are given the sign of the one before in steps of this many frames. */
const SIGN_STEP = 1 / 8;
/** Columns whose cosine is more than this are no longer square to each other. */
const SHEARED = 1e-7;

/** A matrix as place, turn and size: translation, quaternion [x, y, z, w], scale along the turned axes. */
export interface Placement3 {
  readonly translation: readonly number[];
  readonly rotation: readonly number[];
  readonly scale: readonly number[];
}

/** How a part's finished matrix stands in its parent's, as a node's place, turn and size at any frame. */
export class MatrixReader {
  private readonly world = new Float64Array(16);
  private readonly above = new Float64Array(16);
  private readonly inverse = new Float64Array(16);
  private readonly signs: (readonly number[])[] = [];
  private readonly parent: number;

  constructor(
    private readonly program: Program,
    private readonly part: number,
    readonly knots: readonly number[],
  ) {
    this.parent = program.structure.hierarchy.parents[part]!;
  }

  /** The node's place at a frame; the quaternion's sign follows the one before. */
  at(frame: number): Placement3 {
    const placed = this.plain(frame);
    const reference = this.signAt(Math.floor((frame - this.knots[0]!) / SIGN_STEP));
    return { ...placed, rotation: sameSide(placed.rotation, reference) };
  }

  /** Whether a size along turned axes can't say the matrix at some knot: it leans. */
  get leans(): boolean {
    return this.knots.some((frame) => {
      const m = this.local(frame);
      const column = (i: number) => [m[i * 4]!, m[i * 4 + 1]!, m[i * 4 + 2]!];
      const cosine = (a: number[], b: number[]) =>
        Math.abs(a.reduce((sum, v, i) => sum + v * b[i]!, 0)) /
        ((Math.hypot(...a) || 1) * (Math.hypot(...b) || 1));
      const [x, y, z] = [column(0), column(1), column(2)];
      return cosine(x, y) > SHEARED || cosine(x, z) > SHEARED || cosine(y, z) > SHEARED;
    });
  }

  /** Jets of one of the node's paths, by differences just after the frame. */
  jets(path: NodePath): (frame: number) => readonly Jet[] {
    return (frame) => {
      const a = this.at(frame)[path];
      const reading = (at: number) => {
        const read = this.at(at)[path];
        return path === 'rotation' ? sameSide(read, a) : read;
      };
      const b = reading(frame + STEP);
      const c = reading(frame + 2 * STEP);
      return a.map((v, i): Jet => {
        const slope = (-3 * v + 4 * b[i]! - c[i]!) / (2 * STEP);
        return [v, slope, 0, 0];
      });
    };
  }

  /** Degrees turned between two frames, along the way. */
  turned(from: number, to: number): number {
    let sum = 0;
    let last = this.at(from).rotation;
    const steps = Math.max(8, Math.min(64, Math.ceil((to - from) / SIGN_STEP)));
    for (let i = 1; i <= steps; i++) {
      const next = this.at(i === steps ? to - 1e-6 : from + ((to - from) * i) / steps).rotation;
      const cosine = Math.min(1, Math.abs(last.reduce((total, v, n) => total + v * next[n]!, 0)));
      sum += (2 * Math.acos(cosine) * 180) / Math.PI;
      last = next;
    }
    return sum;
  }

  private local(frame: number): Float64Array {
    this.program.worldMatrix(this.part, frame, this.world);
    if (this.parent < 0) return this.world;
    this.program.worldMatrix(this.parent, frame, this.above);
    invertAffine(this.inverse, this.above);
    multiplyAffine(this.world, this.inverse, this.world);
    return this.world;
  }

  private plain(frame: number): Placement3 {
    const m = this.local(frame);
    const scale = [0, 1, 2].map((i) => Math.hypot(m[i * 4]!, m[i * 4 + 1]!, m[i * 4 + 2]!));
    const axis = (i: number, row: number) => m[i * 4 + row]! / (scale[i]! || 1);
    const turning = (a: number, b: number, c: number) =>
      axis(a, 0) * (axis(b, 1) * axis(c, 2) - axis(b, 2) * axis(c, 1)) -
      axis(a, 1) * (axis(b, 0) * axis(c, 2) - axis(b, 2) * axis(c, 0)) +
      axis(a, 2) * (axis(b, 0) * axis(c, 1) - axis(b, 1) * axis(c, 0));
    if (turning(0, 1, 2) < 0) scale[0] = -scale[0]!;
    const rotation = quaternionOf(
      (row, column) => axis(column, row) * (column === 0 && scale[0]! < 0 ? -1 : 1),
    );
    return { translation: [m[12]!, m[13]!, m[14]!], rotation, scale };
  }

  /** The quaternion at a step of signs, on the side of the step before it. */
  private signAt(step: number): readonly number[] {
    const { signs } = this;
    const wanted = Math.max(0, step);
    while (signs.length <= wanted) {
      const frame = this.knots[0]! + signs.length * SIGN_STEP;
      const { rotation } = this.plain(frame);
      const last = signs.at(-1);
      signs.push(last ? sameSide(rotation, last) : rotation);
    }
    return signs[wanted]!;
  }
}

function sameSide(q: readonly number[], reference: readonly number[]): readonly number[] {
  return q.reduce((sum, v, i) => sum + v * reference[i]!, 0) < 0 ? q.map((v) => -v) : q;
}

/** The unit quaternion [x, y, z, w] of a turn (Shepperd 1978). */
function quaternionOf(m: (row: number, column: number) => number): number[] {
  const trace = m(0, 0) + m(1, 1) + m(2, 2);
  let q: number[];
  if (trace > 0) q = [m(2, 1) - m(1, 2), m(0, 2) - m(2, 0), m(1, 0) - m(0, 1), 1 + trace];
  else if (m(0, 0) >= m(1, 1) && m(0, 0) >= m(2, 2))
    q = [1 + m(0, 0) - m(1, 1) - m(2, 2), m(0, 1) + m(1, 0), m(0, 2) + m(2, 0), m(2, 1) - m(1, 2)];
  else if (m(1, 1) >= m(2, 2))
    q = [m(0, 1) + m(1, 0), 1 + m(1, 1) - m(0, 0) - m(2, 2), m(1, 2) + m(2, 1), m(0, 2) - m(2, 0)];
  else q = [m(0, 2) + m(2, 0), m(1, 2) + m(2, 1), 1 + m(2, 2) - m(0, 0) - m(1, 1), m(1, 0) - m(0, 1)];
  const length = Math.hypot(...q);
  return q.map((v) => v / length);
}
