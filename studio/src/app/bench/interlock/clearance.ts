import { BufferAttribute, BufferGeometry, Matrix4, Vector3 } from 'three';
import { MeshBVH, type HitPointInfo } from 'three-mesh-bvh';
import {
  interlockStanding,
  partOf,
  shapeMesh,
  splitChannel,
  withDescendants,
  type Interlock,
  type ModelMeshOf,
  type Program,
  type Project,
} from '@kaizen/core';

/** The least distance of two parts, in metres, and the frame at which they are so near. */
export interface Clearance {
  readonly distance: number;
  readonly frame: number;
}

/** No more frames than this are looked at. */
const MOST_FRAMES = 240;
/** What has more triangles is measured only when it is asked for. */
export const MANY_TRIANGLES = 20_000;

/** The frames in which what an interlock ties pass each other: from what is waited for to where the leg of the waiting key ends. */
export function passingFrames(project: Project, lock: Interlock): readonly number[] {
  const { awaited } = interlockStanding(project, lock);
  const curve = project.clips
    .find(({ id }) => id === lock.clip)
    ?.curves.find(({ channel }) => channel === lock.channel);
  const after = curve?.keys.find(({ frame }) => frame > lock.frame);
  const first = Math.floor(Math.min(awaited ?? lock.frame, lock.frame));
  const last = Math.ceil(after?.frame ?? lock.frame);
  const step = Math.max(1, Math.ceil((last - first) / MOST_FRAMES));
  return Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, i) => first + i * step);
}

/** A mesh of a part, as it lies in the part. */
interface Solid {
  readonly part: number;
  readonly positions: Float32Array;
  readonly geometry: BufferGeometry;
  tree: MeshBVH | null;
}

/**
 * How near the two parts of an interlock, each with what rides on it, come to each other while they pass. Null where one has no mesh,
 * or rides on the other. Triangle against triangle, by trees of boxes.
 */
export class PairClearance {
  private readonly solids: readonly [readonly Solid[], readonly Solid[]] | null;

  constructor(
    private readonly project: Project,
    private readonly lock: Interlock,
    meshOf: ModelMeshOf,
  ) {
    const below = (channel: string) => withDescendants(project.parts, splitChannel(channel).part);
    const [own, others] = [below(lock.channel), below(lock.after.channel)];
    const solidsOf = (ids: readonly string[]) => ids.flatMap((id) => solidOf(project, id, meshOf));
    const [a, b] = own.some((id) => others.includes(id)) ? [[], []] : [solidsOf(own), solidsOf(others)];
    this.solids = a.length > 0 && b.length > 0 ? [a, b] : null;
  }

  get triangles(): number {
    return (this.solids ?? []).flat().reduce((sum, { geometry }) => sum + geometry.index!.count / 3, 0);
  }

  measure(program: Program): Clearance | null {
    if (!this.solids) return null;
    const [own, others] = this.solids;
    const out = program.createOutput();
    let least: Clearance | null = null;
    for (const frame of passingFrames(this.project, this.lock)) {
      program.run(frame, out);
      for (const solid of own) {
        const tree = placed(solid, out.world[solid.part]!);
        for (const other of others) {
          const distance = between(tree, other, out.world[other.part]!, least?.distance ?? Infinity);
          if (distance !== null && (least === null || distance < least.distance)) least = { distance, frame };
        }
      }
    }
    return least;
  }
}

function solidOf(project: Project, id: string, meshOf: ModelMeshOf): readonly Solid[] {
  const part = partOf(project, id);
  if (part?.kind !== 'mesh') return [];
  const mesh = part.geometry.shape === 'asset' ? meshOf(part) : shapeMesh(part.geometry);
  if (!mesh || mesh.indices.length === 0) return [];
  const geometry = new BufferGeometry();
  const positions = Float32Array.from(mesh.positions);
  geometry.setAttribute('position', new BufferAttribute(positions.slice(), 3));
  geometry.setIndex(new BufferAttribute(Uint32Array.from(mesh.indices), 1));
  return [{ part: project.parts.indexOf(part), positions, geometry, tree: null }];
}

const matrix = new Matrix4();

/** The tree of a mesh as a matrix places it in the world: its boxes are fitted to it anew. */
function placed(solid: Solid, world: Float64Array): MeshBVH {
  const attribute = solid.geometry.getAttribute('position') as BufferAttribute;
  (attribute.array as Float32Array).set(solid.positions);
  attribute.applyMatrix4(matrix.fromArray(world));
  if (solid.tree) solid.tree.refit();
  else solid.tree = new MeshBVH(solid.geometry);
  return solid.tree;
}

const hit = (): HitPointInfo => ({ point: new Vector3(), distance: 0, faceIndex: 0 });

/** The distance of a mesh that a matrix places from a tree of one that lies in the world; null where it is not under `most`. */
function between(tree: MeshBVH, other: Solid, world: Float64Array, most: number): number | null {
  const placement = matrix.fromArray(world);
  const found = tree.closestPointToGeometry(other.geometry, placement, hit(), hit(), 0, most);
  return found?.distance ?? null;
}
