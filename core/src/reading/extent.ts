import { partOf, type MeshPart, type Project, type Vec3 } from '../project';
import type { FrameOutput, Program } from '../evaluate';
import { Deformation, ModelShape, placeOf, withDescendants, type ModelVertices } from '../rig';
import { refineMesh, shapeMesh, type TriangleMesh } from '../shape';

/** Where some parts are in the world at a frame, by the corners of their meshes as they are deformed. Metres and cubic metres. */
export interface Extent {
  readonly least: Vec3;
  readonly most: Vec3;
  /** The lowest corner. */
  readonly lowest: Vec3;
  readonly volume: number;
}

/** The vertices and triangles of a model's mesh; null where they are not at hand. */
export type ModelMeshOf = (
  part: MeshPart,
) => (ModelVertices & { readonly indices: ArrayLike<number> }) | null;

const NO_MODELS: ModelMeshOf = () => null;

/** A deformed mesh is cut so that no edge is longer than this share of its size. */
const FINE = 1 / 24;

/**
 * The extent of a part with all that rides on it, at the frame that an output is filled for; null where none of them has a mesh.
 */
export function extentOf(
  project: Project,
  program: Program,
  out: FrameOutput,
  id: string,
  models: ModelMeshOf = NO_MODELS,
): Extent | null {
  const least = [Infinity, Infinity, Infinity];
  const most = [-Infinity, -Infinity, -Infinity];
  let lowest: Vec3 | null = null;
  let volume = 0;
  const meshes = meshesOf(project, program, out, id, models);
  for (const { corners, indices } of meshes) {
    for (let n = 0; n < corners.length; n += 3) {
      for (let axis = 0; axis < 3; axis++) {
        least[axis] = Math.min(least[axis]!, corners[n + axis]!);
        most[axis] = Math.max(most[axis]!, corners[n + axis]!);
      }
      if (lowest === null || corners[n + 1]! < lowest[1])
        lowest = [corners[n]!, corners[n + 1]!, corners[n + 2]!];
    }
    volume += Math.abs(volumeOf(corners, indices));
  }
  if (!lowest) return null;
  return { least: least as unknown as Vec3, most: most as unknown as Vec3, lowest, volume };
}

/**
 * How far a part with all that rides on it reaches from a place of the world along a unit direction, and away from it across; null
 * where none of it has a mesh.
 */
export function reachFrom(
  project: Project,
  program: Program,
  out: FrameOutput,
  id: string,
  place: Vec3,
  direction: Vec3,
): { readonly along: number; readonly across: number } | null {
  const meshes = meshesOf(project, program, out, id, NO_MODELS);
  if (meshes.length === 0) return null;
  let [along, across] = [0, 0];
  eachCorner(meshes, (x, y, z) => {
    const away = [x - place[0], y - place[1], z - place[2]] as const;
    const way = away[0] * direction[0] + away[1] * direction[1] + away[2] * direction[2];
    along = Math.max(along, way);
    across = Math.max(across, Math.hypot(...away.map((n, i) => n - way * direction[i]!)));
  });
  return { along, across };
}

/**
 * How far a part is above another, straight down, with all that rides on both: it touches when it has moved down by so much; negative
 * where it stands within. Null where no corner of one is over or under a face of the other. Edges that cross are not looked at.
 */
export function fallOnto(
  project: Project,
  program: Program,
  out: FrameOutput,
  id: string,
  onto: string,
  models: ModelMeshOf = NO_MODELS,
): number | null {
  const upper = meshesOf(project, program, out, id, models);
  const lower = meshesOf(project, program, out, onto, models);
  let fall: number | null = null;
  const note = (gap: number) => {
    if (fall === null || gap < fall) fall = gap;
  };
  eachCorner(upper, (x, y, z) => {
    const top = surfaceAt(lower, x, z, Math.max);
    if (top !== null) note(y - top);
  });
  eachCorner(lower, (x, y, z) => {
    const bottom = surfaceAt(upper, x, z, Math.min);
    if (bottom !== null) note(bottom - y);
  });
  return fall;
}

function eachCorner(meshes: readonly Placed[], tell: (x: number, y: number, z: number) => void): void {
  for (const { corners } of meshes)
    for (let n = 0; n < corners.length; n += 3) tell(corners[n]!, corners[n + 1]!, corners[n + 2]!);
}

/** The highest or lowest face of some meshes at a place seen from above; null where there is none. */
function surfaceAt(
  meshes: readonly Placed[],
  x: number,
  z: number,
  which: (a: number, b: number) => number,
): number | null {
  let height: number | null = null;
  for (const { corners, indices } of meshes)
    for (let n = 0; n < indices.length; n += 3) {
      const y = heightIn(corners, indices[n]! * 3, indices[n + 1]! * 3, indices[n + 2]! * 3, x, z);
      if (y !== null) height = height === null ? y : which(height, y);
    }
  return height;
}

/** The height of a triangle's plane at a place within it, seen from above; null beside it. */
function heightIn(c: Float64Array, i: number, j: number, k: number, x: number, z: number): number | null {
  const [ax, az] = [c[i]! - x, c[i + 2]! - z];
  const [bx, bz] = [c[j]! - x, c[j + 2]! - z];
  const [dx, dz] = [c[k]! - x, c[k + 2]! - z];
  const area = (bx - ax) * (dz - az) - (dx - ax) * (bz - az);
  if (Math.abs(area) < 1e-15) return null;
  const u = (bx * dz - dx * bz) / area;
  const v = (dx * az - ax * dz) / area;
  const w = 1 - u - v;
  const beside = -1e-9;
  if (u < beside || v < beside || w < beside) return null;
  return u * c[i + 1]! + v * c[j + 1]! + w * c[k + 1]!;
}

interface Placed {
  readonly corners: Float64Array;
  readonly indices: ArrayLike<number>;
}

/** The meshes of a part and of all that rides on it, in the world. */
function meshesOf(
  project: Project,
  program: Program,
  out: FrameOutput,
  id: string,
  models: ModelMeshOf,
): readonly Placed[] {
  return withDescendants(project.parts, id).flatMap((each) => {
    const part = partOf(project, each);
    const i = program.structure.partIndex.get(each);
    return (part?.kind === 'mesh' && i !== undefined && placedMesh(part, program, out, i, models)) || [];
  });
}

/** A part's mesh in the world, deformed by its channels and joints; null where it is a model's that is not at hand. */
function placedMesh(
  part: MeshPart,
  program: Program,
  out: FrameOutput,
  index: number,
  models: ModelMeshOf,
): Placed | null {
  const model = part.geometry.shape === 'asset' ? models(part) : simple(part);
  if (!model) return null;
  const { slots, partIndex } = program.structure;
  const shape = new ModelShape(part, model);
  const joints = shape.joints.map((joint) => partIndex.get(joint));
  if (joints.includes(undefined)) return null;
  shape.pose(
    shape.properties.map((property) => out.channels[slots.get(`${part.id}/${property}`)!]!),
    joints.map((joint) => out.world[joint!]!),
  );
  const corners = new Float64Array(model.positions.length);
  const place = new Float64Array(3);
  for (let n = 0; n < corners.length; n += 3) {
    const { point, turn } = shape.moved(n / 3);
    if (turn) corners.set(point, n);
    else {
      placeOf(place, out.world[index]!, [point[0]!, point[1]!, point[2]!]);
      corners.set(place, n);
    }
  }
  return { corners, indices: model.indices };
}

/** A simple shape as a model's mesh is. */
function simple(part: MeshPart): ReturnType<ModelMeshOf> {
  const { positions, indices } = shapeOf(part, new Deformation(part).acts);
  return { positions, indices, own: [], skin: null };
}

/** A simple shape's mesh, cut finely where it is deformed. */
function shapeOf({ geometry }: MeshPart, isDeformed: boolean): TriangleMesh {
  if (geometry.shape === 'asset') return { positions: [], normals: [], indices: [] };
  const mesh = shapeMesh(geometry);
  return isDeformed ? fine(mesh) : mesh;
}

function fine(mesh: TriangleMesh): TriangleMesh {
  const size = mesh.positions.reduce((most, n) => Math.max(most, Math.abs(n)), 0) * 2;
  return refineMesh(mesh, (a, b) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) > size * FINE);
}

/** The volume inside a closed mesh, positive where its triangles turn outwards (divergence theorem). */
function volumeOf(corners: Float64Array, indices: ArrayLike<number>): number {
  let six = 0;
  const at = (vertex: number, axis: number) => corners[vertex * 3 + axis]!;
  for (let n = 0; n < indices.length; n += 3) {
    const [a, b, c] = [indices[n]!, indices[n + 1]!, indices[n + 2]!];
    six +=
      at(a, 0) * (at(b, 1) * at(c, 2) - at(b, 2) * at(c, 1)) +
      at(a, 1) * (at(b, 2) * at(c, 0) - at(b, 0) * at(c, 2)) +
      at(a, 2) * (at(b, 0) * at(c, 1) - at(b, 1) * at(c, 0));
  }
  return six / 6;
}
