import { mat4 } from 'gl-matrix';
import {
  channelName,
  TRANSFORM_PROPERTIES,
  type Curve,
  type Part,
  type Project,
  type TurnOrder,
  type Vec3,
} from '../../project';
import type { Program } from '../../evaluate';
import { anglesNear, localMatrix, transformFrame, unitAxes } from '../../rig';
import { changeCurves, curveOf, emptyCurve, newKey, withKeys } from '../curves';
import { changePart } from '../parts';
import { scaledSide } from '../scaled-side';

/** Place, turn (degrees) and size of a part: the nine numbers of its matrix that are no squash. */
export interface Transform {
  readonly translate: Vec3;
  readonly rotate: Vec3;
  readonly scale: Vec3;
}

export const TRANSFORM_CHANNELS: readonly string[] = TRANSFORM_PROPERTIES.slice(0, 9);

/** How many keys a project has, in all clips. */
export function keyCount({ clips }: Project): number {
  return clips.reduce((sum, { curves }) => sum + curves.reduce((all, { keys }) => all + keys.length, 0), 0);
}

/** Columns whose cosine is more than this are no longer square to each other. */
const SHEARED = 1e-6;
/** A value that changes by less than this share of itself does not change. */
const STILL = 1e-10;

/** The nine numbers of a part at a frame. */
export function transformAt(program: Program, part: Part, frame: number): Transform {
  const value = (property: string) =>
    program.channelValue(program.structure.slots.get(channelName(part.id, property))!, frame);
  const [tx, ty, tz, rx, ry, rz, sx, sy, sz] = TRANSFORM_CHANNELS.map(value) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return { translate: [tx, ty, tz], rotate: [rx, ry, rz], scale: [sx, sy, sz] };
}

/** The local matrix of nine numbers about a part's pivot, its squash left out. */
export function matrixOf(part: Part, { translate, rotate, scale }: Transform): Float64Array {
  const out = new Float64Array(16);
  localMatrix(out, transformFrame(part), Float64Array.of(...translate, ...rotate, ...scale, 0, 1), 0);
  return out;
}

/** The nine numbers that give a part a matrix about its pivot, angles nearest to `near`; null where it is sheared. */
export function transformOf(
  pivot: Vec3,
  order: TurnOrder,
  matrix: ArrayLike<number>,
  near: Transform,
): Transform | null {
  const column = (i: number) => [matrix[i * 4]!, matrix[i * 4 + 1]!, matrix[i * 4 + 2]!] as const;
  const dot = (a: readonly number[], b: readonly number[]) => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
  const columns = [column(0), column(1), column(2)] as const;
  const lengths = columns.map((each) => Math.hypot(...each)) as [number, number, number];
  if (lengths.some((length) => !(length > 0))) return null;
  for (const [a, b] of [
    [0, 1],
    [0, 2],
    [1, 2],
  ] as const)
    if (Math.abs(dot(columns[a], columns[b])) > SHEARED * lengths[a] * lengths[b]) return null;
  const axes = unitAxes(matrix);
  if (mat4.determinant(Float64Array.from(matrix)) < 0) mirrorLike(near.scale, lengths, axes);
  const turned = [0, 1, 2].map((row) => columns.reduce((sum, each, i) => sum + each[row]! * pivot[i]!, 0));
  const translate = [0, 1, 2].map((row) => matrix[12 + row]! - pivot[row]! + turned[row]!);
  return {
    translate: translate as unknown as Vec3,
    rotate: anglesNear(order, axes, near.rotate),
    scale: lengths,
  };
}

/** A mirrored matrix has a negative size on the axes that were negative before, or on the first. */
function mirrorLike(before: Vec3, lengths: [number, number, number], axes: Float64Array): void {
  const signs = before.map((size) => (size < 0 ? -1 : 1));
  const odd = signs.filter((sign) => sign < 0).length % 2 === 1;
  const flipped = odd ? signs : [-1, 1, 1];
  for (let n = 0; n < 3; n++) {
    lengths[n] = lengths[n]! * flipped[n]!;
    for (let row = 0; row < 3; row++) axes[n * 3 + row] = axes[n * 3 + row]! * flipped[n]!;
  }
}

/** Which of a part's nine channels have a curve in some clip, or a driver that is not muted. */
export function movedChannels(
  project: Project,
  id: string,
): { readonly keyed: ReadonlySet<string>; readonly driven: ReadonlySet<string> } {
  const names = new Map(TRANSFORM_CHANNELS.map((property) => [channelName(id, property), property]));
  const keyed = new Set(
    project.clips.flatMap(({ curves }) =>
      curves.flatMap(({ channel, muted }) => (muted ? [] : (names.get(channel) ?? []))),
    ),
  );
  const driven = new Set(
    project.drivers.flatMap(({ target, muted }) => (muted ? [] : (names.get(target) ?? []))),
  );
  return { keyed, driven };
}

/** The whole frames of the shot, and those of a part's keys outside it. */
export function framesOf(project: Project, id: string): { readonly first: number; readonly last: number } {
  let { start: first, end: last } = project.range;
  for (const property of TRANSFORM_CHANNELS) {
    const keys = curveOf(project, channelName(id, property))?.keys ?? [];
    if (keys.length === 0) continue;
    first = Math.min(first, keys[0]!.frame);
    last = Math.max(last, keys.at(-1)!.frame);
  }
  return { first: Math.floor(first), last: Math.ceil(last) };
}

/**
 * Gives a part nine numbers a frame: what stays the same over all frames becomes a rest value, what changes gets a key on every
 * whole frame, but where its curve says the very same already. Returns null where a driven channel would have to change.
 */
export function writeTransforms(
  project: Project,
  id: string,
  first: number,
  before: readonly Transform[],
  after: readonly Transform[],
): Project | null {
  const { driven } = movedChannels(project, id);
  let written = project;
  for (const [g, group] of (['translate', 'rotate', 'scale'] as const).entries())
    for (const n of [0, 1, 2]) {
      const property = TRANSFORM_CHANNELS[g * 3 + n]!;
      const old = before.map((each) => each[group][n]!);
      const next = after.map((each) => each[group][n]!);
      if (next.every((value, i) => isStill(value, old[i]!))) continue;
      if (driven.has(property)) return null;
      written = writeChannel(written, id, property, first, old, next);
    }
  return written;
}

function writeChannel(
  project: Project,
  id: string,
  property: string,
  first: number,
  old: readonly number[],
  next: readonly number[],
): Project {
  const channel = channelName(id, property);
  const shift = next[0]! - old[0]!;
  const curve = curveOf(project, channel);
  if (next.every((value, i) => isStill(value - old[i]!, shift))) {
    const moved = changeCurves(project, [channel], (own) => shifted(own, shift), { locked: 'change' });
    return changeRest(moved, id, property, (rest) => (curve ? rest + shift : next[0]!));
  }
  if (curve && isPlain(curve) && next.every((value, i) => isStill(value, -old[i]!))) {
    const turned = changeCurves(project, [channel], negated, { locked: 'change' });
    return changeRest(turned, id, property, (rest) => -rest);
  }
  if (next.every((value) => isStill(value, next[0]!))) {
    const bare = changeCurves(project, [channel], (own) => ({ ...own, keys: [] }), { locked: 'change' });
    return changeRest(bare, id, property, () => next[0]!);
  }
  const keys = next.map((value, i) => newKey(first + i, value));
  return changeCurves(
    project,
    [channel],
    (own) => withKeys({ ...emptyCurve(channel), locked: own.locked }, keys),
    {
      locked: 'change',
    },
  );
}

/** Whether two values are one but for rounding. */
export function isStill(a: number, b: number): boolean {
  return Math.abs(a - b) <= STILL * Math.max(1, Math.abs(a), Math.abs(b));
}

/** A curve with all its values higher by some amount. */
function shifted(curve: Curve, by: number): Curve {
  return withKeys(
    curve,
    curve.keys.map((key) => ({ ...key, value: key.value + by })),
  );
}

/** A curve with its values the other way round. */
function negated(curve: Curve): Curve {
  return withKeys(
    curve,
    curve.keys.map((key) => ({
      ...key,
      value: -key.value,
      in: scaledSide(key.in, -1),
      out: scaledSide(key.out, -1),
    })),
  );
}

/** Nothing in it means a direction of its own: no treatment, no fall. */
function isPlain({ treatments, keys }: Curve): boolean {
  return treatments.length === 0 && keys.every(({ leg }) => leg.kind !== 'ballistic');
}

function changeRest(
  project: Project,
  id: string,
  property: string,
  change: (value: number) => number,
): Project {
  const [group, axis] = property.split('.') as [keyof Part['rest'], string];
  return changePart(project, id, (part) => ({
    ...part,
    rest: {
      ...part.rest,
      [group]: part.rest[group].map((value, n) => (n === 'xyz'.indexOf(axis) ? change(value) : value)),
    },
  }));
}
