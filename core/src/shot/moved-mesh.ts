import { encodeName, type MeshPart } from '../project';
import type { Program } from '../evaluate';
import { Deformation } from '../rig';
import { refineMesh, shapeMesh, type TriangleMesh } from '../shape';

/** No edge's middle is further off than this, in metres, nor any vertex between two targets. */
const EDGE_TOLERANCE = 0.95e-4;
const TARGET_TOLERANCE = 0.7e-4;

/** A target: where each vertex goes, three numbers a vertex, and how much of it there is by the channels' values. */
export interface MeshTarget {
  readonly name: string;
  readonly displacements: readonly number[];
}

/** The points of a model's mesh, three numbers each, and how far each of its own targets moves them. */
export interface MeshPoints {
  readonly positions: readonly number[];
  readonly own: readonly (readonly number[])[];
}

/** A deformed mesh with targets that add up; a simple shape is cut finely enough for them. */
export interface MovedMesh {
  /** The mesh that is moved; null where it is a model's. */
  readonly mesh: TriangleMesh | null;
  /** So many of the targets, the first ones, are the model's own. */
  readonly own: number;
  readonly targets: readonly MeshTarget[];
  /** The channels that move it. */
  readonly channels: readonly string[];
  /** The weight of each target at a frame of the shot or of one of the clips alone. */
  readonly weights: (program: Program, frame: number) => readonly number[];
  /** The targets are shapes at frames of the shot: they say nothing of clips alone. */
  readonly ofShotOnly: boolean;
  /** Frames on which the weights bend. */
  readonly bends: readonly number[];
}

/** The least and the greatest of some values, on the frames of a span and the rest value. */
function rangeOf(values: readonly number[]): readonly [number, number] {
  return [Math.min(...values), Math.max(...values)];
}

/**
 * A part's mesh as targets over a span of frames of the shot, and of clips alone: one a morph target, and, where a squash is
 * rounded, so many shapes of it that what lies between two is within tolerance. Where both move, each shape is one of the whole at
 * a frame. `model` are the points of a mesh from a model.
 */
export function movedMesh(
  part: MeshPart,
  program: Program,
  clips: readonly Program[],
  span: { readonly start: number; readonly end: number },
  model: MeshPoints | null = null,
): MovedMesh | null {
  const deformation = new Deformation(part);
  const own = model ? part.morphs.filter(({ moves }) => moves === undefined).slice(0, model.own.length) : [];
  if ((!deformation.acts && own.length === 0) || (part.geometry.shape === 'asset' && !model)) return null;
  const properties = [...own.map(({ name }) => `morph.${encodeName(name)}`), ...deformation.properties];
  const channels = properties.map((property) => `${part.id}/${property}`);
  const slots = channels.map((channel) => program.structure.slots.get(channel)!);
  const valuesIn = (of: Program, frame: number) => slots.map((slot) => of.channelValue(slot, frame));
  const frames: number[] = [];
  for (let frame = span.start; frame < span.end; frame++) frames.push(frame);
  frames.push(span.end);
  const seen = [program, ...clips].flatMap((of) => frames.map((frame) => valuesIn(of, frame)));
  const ranges = slots.map((_, i) => rangeOf(seen.map((values) => values[i]!)));
  const mesh =
    part.geometry.shape === 'asset'
      ? null
      : refineMesh(shapeMesh(part.geometry), bendsUnder(deformation, ranges));
  const points: MeshPoints = model ?? { positions: mesh!.positions, own: [] };
  const moved = (values: readonly number[]) => displacements(points, own.length, deformation, values);
  const rounded = properties.at(-1) === 'squash';
  if (!rounded) {
    const made = part.morphs.filter(({ moves }) => moves !== undefined);
    const targets = [...own, ...made].map(({ name }, i) => ({
      name,
      displacements: moved(slots.map((__, j) => (i === j ? 1 : 0))),
    }));
    return { mesh, own: own.length, targets, channels, weights: valuesIn, ofShotOnly: false, bends: [] };
  }
  const still = ranges.slice(0, -1).every(([low, high]) => low === high);
  const fixed = ranges.slice(0, -1).map(([low]) => low);
  const along = still
    ? levels(ranges.at(-1)!, (squash) => moved([...fixed, squash]))
    : levels([span.start, span.end], (frame) => moved(valuesIn(program, frame)), true);
  const place = (of: Program, frame: number) => (still ? of.channelValue(slots.at(-1)!, frame) : frame);
  return {
    mesh,
    own: 0,
    targets: along.map(({ at, shape }, i) => ({
      name: still ? `squash ${i + 1}` : `frame ${Math.round(at * 1000) / 1000}`,
      displacements: shape,
    })),
    channels,
    ofShotOnly: !still,
    weights: (of, frame) =>
      hats(
        along.map(({ at }) => at),
        place(of, frame),
      ),
    bends: still ? [] : along.map(({ at }) => at),
  };
}

/** How far all points go at some values: those of the model's own targets first, then the deformation's. */
function displacements(
  { positions, own: targets }: MeshPoints,
  own: number,
  deformation: Deformation,
  values: readonly number[],
): number[] {
  const out: number[] = [];
  const point = new Float64Array(3);
  const byOwn = new Float64Array(3);
  const rest = values.slice(own);
  for (let i = 0; i < positions.length; i += 3) {
    for (let row = 0; row < 3; row++) {
      point[row] = positions[i + row]!;
      byOwn[row] = 0;
      for (let t = 0; t < own; t++) byOwn[row] = byOwn[row]! + values[t]! * targets[t]![i + row]!;
    }
    deformation.move(point, rest, byOwn);
    for (let row = 0; row < 3; row++) out.push(point[row]! - positions[i + row]!);
  }
  return out;
}

/** Whether the middle of an edge would leave the middle of its ends, by more than a tolerance in metres, at the greatest values each way. */
export function bendsUnder(
  deformation: Deformation,
  ranges: readonly (readonly [number, number])[],
  tolerance = EDGE_TOLERANCE,
): (a: readonly [number, number, number], b: readonly [number, number, number]) => boolean {
  const extremes = extremesOf(ranges);
  const [p, q, m] = [new Float64Array(3), new Float64Array(3), new Float64Array(3)];
  return (a, b) => {
    for (const values of extremes) {
      for (let row = 0; row < 3; row++) {
        p[row] = a[row]!;
        q[row] = b[row]!;
        m[row] = (a[row]! + b[row]!) / 2;
      }
      deformation.move(p, values);
      deformation.move(q, values);
      deformation.move(m, values);
      let square = 0;
      for (let row = 0; row < 3; row++) square += (m[row]! - (p[row]! + q[row]!) / 2) ** 2;
      if (square > tolerance ** 2) return true;
    }
    return false;
  };
}

/** Both ends of all ranges together, and of each by itself; each once, and none that leaves the mesh as it is. */
function extremesOf(ranges: readonly (readonly [number, number])[]): readonly (readonly number[])[] {
  const all = [ranges.map(([low]) => low), ranges.map(([, high]) => high)];
  ranges.forEach((range, i) => {
    for (const end of range) all.push(ranges.map((_, j) => (i === j ? end : 0)));
  });
  const known = new Map(all.map((values) => [values.join(' '), values]));
  return [...known.values()].filter((values) => values.some((value) => value !== 0));
}

interface Level {
  readonly at: number;
  readonly shape: readonly number[];
}

/** Places between which the shape goes straight to within tolerance, by halving; every whole one where `whole`. */
function levels(
  [low, high]: readonly [number, number],
  shapeAt: (at: number) => readonly number[],
  whole = false,
): Level[] {
  const level = (at: number): Level => ({ at, shape: shapeAt(at) });
  if (low === high) return [level(low)];
  const found: Level[] = [level(low)];
  const split = (a: Level, b: Level, depth: number): void => {
    const middle = level((a.at + b.at) / 2);
    const quarters = [0.25, 0.75].map((u) => ({ u, shape: shapeAt(a.at + (b.at - a.at) * u) }));
    const off = [{ u: 0.5, shape: middle.shape }, ...quarters].some(({ u, shape }) =>
      farFrom(a, b, u, shape),
    );
    if (depth < 14 && (off || (whole && b.at - a.at > 16))) {
      split(a, middle, depth + 1);
      split(middle, b, depth + 1);
    } else found.push(b);
  };
  split(found[0]!, level(high), 0);
  return found;
}

function farFrom(a: Level, b: Level, u: number, shape: readonly number[]): boolean {
  for (let i = 0; i < shape.length; i += 3) {
    let square = 0;
    for (let row = 0; row < 3; row++) {
      const straight = a.shape[i + row]! + (b.shape[i + row]! - a.shape[i + row]!) * u;
      square += (shape[i + row]! - straight) ** 2;
    }
    if (square > TARGET_TOLERANCE ** 2) return true;
  }
  return false;
}

/** How much of each of rising places there is at one between them: those on both sides, straight. */
function hats(places: readonly number[], at: number): number[] {
  const weights = places.map(() => 0);
  const last = places.length - 1;
  if (last === 0 || at <= places[0]!) weights[0] = 1;
  else if (at >= places[last]!) weights[last] = 1;
  else {
    const i = places.findIndex((place) => place > at);
    const share = (at - places[i - 1]!) / (places[i]! - places[i - 1]!);
    weights[i - 1] = 1 - share;
    weights[i] = share;
  }
  return weights;
}
