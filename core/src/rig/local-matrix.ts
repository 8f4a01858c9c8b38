import type { Part, TurnOrder } from '../project';
import { cosDeg, sinDeg } from '../law';

/** Channels of a transform, in the order of TRANSFORM_PROPERTIES: translate, rotate (degrees), scale, squash. */
export type TransformValues = ArrayLike<number>;

/** A part gets no shorter than this share by its squash. */
export const LEAST_SQUASH = 0.05;

const ORDER_AXES: Readonly<Record<TurnOrder, readonly [number, number, number]>> = {
  XYZ: [0, 1, 2],
  XZY: [0, 2, 1],
  YXZ: [1, 0, 2],
  YZX: [1, 2, 0],
  ZXY: [2, 0, 1],
  ZYX: [2, 1, 0],
};

/** What of a part shapes its local matrix besides its channels, flattened once. */
export interface TransformFrame {
  readonly order: readonly [number, number, number];
  readonly pivot: readonly [number, number, number];
  readonly anchor: readonly [number, number, number];
  readonly squashAxis: number;
  readonly squashInParent: boolean;
  /** The squash bulges the mesh and leaves the matrix alone. */
  readonly rounded: boolean;
  /** The pivot is the origin. */
  readonly plain: boolean;
}

export function transformFrame(part: Part): TransformFrame {
  const squash = part.squash;
  return {
    order: ORDER_AXES[part.turnOrder],
    pivot: part.pivot,
    anchor: squash?.anchor ?? [0, 0, 0],
    squashAxis: squash ? 'xyz'.indexOf(squash.axis) : 1,
    squashInParent: squash?.frame === 'parent',
    rounded: squash?.round !== undefined,
    plain: part.pivot.every((value) => value === 0),
  };
}

const rotation = new Float64Array(9);

/**
 * The 3×3 turn of three angles in degrees: "XYZ" is Rx·Ry·Rz. Column-major into `out`. An order that is no even permutation of
 * XYZ sees its axes in a mirror, where all angles run the other way.
 */
export function turnMatrix(
  out: Float64Array,
  order: readonly [number, number, number],
  angles: TransformValues,
  at: number,
): void {
  const i = order[0];
  const j = order[1];
  const k = order[2];
  const sense = (j - i + 3) % 3 === 1 ? 1 : -1;
  const c1 = cosDeg(angles[at + i]!);
  const s1 = sense * sinDeg(angles[at + i]!);
  const c2 = cosDeg(angles[at + j]!);
  const s2 = sense * sinDeg(angles[at + j]!);
  const c3 = cosDeg(angles[at + k]!);
  const s3 = sense * sinDeg(angles[at + k]!);
  out[i * 3 + i] = c2 * c3;
  out[i * 3 + j] = c1 * s3 + s1 * s2 * c3;
  out[i * 3 + k] = s1 * s3 - c1 * s2 * c3;
  out[j * 3 + i] = -c2 * s3;
  out[j * 3 + j] = c1 * c3 - s1 * s2 * s3;
  out[j * 3 + k] = s1 * c3 + c1 * s2 * s3;
  out[k * 3 + i] = s2;
  out[k * 3 + j] = -s1 * c2;
  out[k * 3 + k] = c1 * c2;
}

/**
 * Local matrix `T(translate)·T(pivot)·R·Q·S·T(−pivot)` of contract §7, column-major into `out` (16 numbers).
 * `values[at…at+9]` are the ten transform channels. Q squashes by k = max(0.05, 1 + squash) along its axis and
 * 1/√k across, about the anchor, in the part's frame (after S) or in the parent's (before R).
 */
export function localMatrix(
  out: Float64Array,
  frame: TransformFrame,
  values: TransformValues,
  at: number,
): void {
  const { pivot, anchor } = frame;
  if (frame.plain && isUnturned(values, at) && (values[at + 9] === 0 || frame.rounded)) {
    uprightMatrix(out, 0, values, at);
    return;
  }
  turnMatrix(rotation, frame.order, values, at + 3);
  if (frame.plain && (values[at + 9] === 0 || frame.rounded)) {
    turnedMatrix(out, values, at);
    return;
  }
  const amount = frame.rounded ? 0 : values[at + 9]!;
  const squashed = amount !== 0;
  const along = squashed ? Math.max(LEAST_SQUASH, 1 + amount) : 1;
  const across = squashed ? 1 / Math.sqrt(along) : 1;
  const inParent = squashed && frame.squashInParent;
  const inPart = squashed && !frame.squashInParent;
  for (let column = 0; column < 3; column++) {
    const size = values[at + 6 + column]! * (inPart ? (column === frame.squashAxis ? along : across) : 1);
    for (let row = 0; row < 3; row++) {
      const k = inParent ? (row === frame.squashAxis ? along : across) : 1;
      out[column * 4 + row] = rotation[column * 3 + row]! * size * k;
    }
    out[column * 4 + 3] = 0;
  }
  for (let row = 0; row < 3; row++) {
    let place = values[at + row]! + pivot[row]!;
    for (let column = 0; column < 3; column++) place -= out[column * 4 + row]! * pivot[column]!;
    if (inParent) {
      const k = row === frame.squashAxis ? along : across;
      place += (1 - k) * (anchor[row]! - pivot[row]!);
    } else if (inPart) {
      for (let column = 0; column < 3; column++) {
        const k = column === frame.squashAxis ? along : across;
        const c = values[at + 6 + column]! * (anchor[column]! - pivot[column]!);
        place += rotation[column * 3 + row]! * (1 - k) * c;
      }
    }
    out[12 + row] = place;
  }
  out[15] = 1;
}

/** A local matrix without squash and pivot, its turn in `rotation`. */
function turnedMatrix(out: Float64Array, values: TransformValues, at: number): void {
  const x = values[at + 6]!;
  const y = values[at + 7]!;
  const z = values[at + 8]!;
  out[0] = rotation[0]! * x;
  out[1] = rotation[1]! * x;
  out[2] = rotation[2]! * x;
  out[4] = rotation[3]! * y;
  out[5] = rotation[4]! * y;
  out[6] = rotation[5]! * y;
  out[8] = rotation[6]! * z;
  out[9] = rotation[7]! * z;
  out[10] = rotation[8]! * z;
  out[3] = out[7] = out[11] = 0;
  out[12] = values[at]!;
  out[13] = values[at + 1]!;
  out[14] = values[at + 2]!;
  out[15] = 1;
}

/** Whether a part is not turned, and not squashed either. */
export function isUpright(values: TransformValues, at: number): boolean {
  return isUnturned(values, at) && values[at + 9] === 0;
}

function isUnturned(values: TransformValues, at: number): boolean {
  return values[at + 3] === 0 && values[at + 4] === 0 && values[at + 5] === 0;
}

/** Writes the local matrix of a part without turn, squash and pivot, as most parts are at most frames, from `to` on. */
export function uprightMatrix(out: Float64Array, to: number, values: TransformValues, at: number): void {
  out[to + 1] = out[to + 2] = out[to + 3] = out[to + 4] = 0;
  out[to + 6] = out[to + 7] = out[to + 8] = out[to + 9] = out[to + 11] = 0;
  out[to + 15] = 1;
  moveUpright(out, to, values, at);
}

/** The same over the matrix that such a part had before: only place and size are written. */
export function moveUpright(out: Float64Array, to: number, values: TransformValues, at: number): void {
  out[to] = values[at + 6]!;
  out[to + 5] = values[at + 7]!;
  out[to + 10] = values[at + 8]!;
  out[to + 12] = values[at]!;
  out[to + 13] = values[at + 1]!;
  out[to + 14] = values[at + 2]!;
}
