import { BufferAttribute, BufferGeometry, type SkinnedMesh } from 'three';
import { ModelShape, type MeshPart, type ModelSkin } from '@kaizen/core';
import { edgeQuads } from './edge-quads';
import { numbersOf } from './numbers-of';
import type { Drawn } from './solid-batch';

/**
 * A model's mesh that changes its shape: by its own targets, by targets and a rounded squash made here, and by the joints of its
 * skin. Its points are moved anew for each frame that shows another shape.
 */
export class ModelSolid {
  readonly drawn: Drawn;
  private readonly shape: ModelShape;
  private readonly normals: Float32Array;
  private readonly faces: readonly (readonly [string, Float32Array])[];

  constructor(part: MeshPart, geometry: BufferGeometry, skin: ModelSkin | null) {
    const positions = numbersOf(geometry.getAttribute('position'), 3);
    const own = (geometry.morphAttributes['position'] ?? []).map((target) => numbersOf(target, 3));
    this.shape = new ModelShape(part, { positions, own, skin });
    const solid = new BufferGeometry();
    solid.setAttribute('position', new BufferAttribute(positions.slice(), 3));
    if (geometry.index) solid.setIndex(geometry.index);
    const normal = geometry.getAttribute('normal');
    if (normal) solid.setAttribute('normal', new BufferAttribute(numbersOf(normal, 3), 3));
    else solid.computeVertexNormals();
    this.normals = Float32Array.from(solid.getAttribute('normal').array);
    const uv = geometry.getAttribute('uv');
    if (uv) solid.setAttribute('uv', uv);
    solid.userData = { deforms: true };
    this.drawn = { solid, edges: edgeQuads(solid) };
    this.faces = (['left', 'right'] as const).map((name) => [
      name,
      Float32Array.from(this.drawn.edges.getAttribute(name).array),
    ]);
  }

  /** The properties it is moved by, in the order of `show`'s values: its own targets first. */
  get properties(): readonly string[] {
    return this.shape.properties;
  }

  /** Parts that are its joints, in order; empty where it has no skin. What a skin moves lies in the world. */
  get joints(): readonly string[] {
    return this.shape.joints;
  }

  /** Moves all points to where some values and the world matrices of the joints put them; nothing where that is shown already. */
  show(values: readonly number[], joints: readonly ArrayLike<number>[]): void {
    if (!this.shape.pose(values, joints)) return;
    const { solid, edges } = this.drawn;
    const position = solid.getAttribute('position') as BufferAttribute;
    const normal = solid.getAttribute('normal') as BufferAttribute;
    for (let vertex = 0; vertex < position.count; vertex++) {
      const { point, turn } = this.shape.moved(vertex);
      position.setXYZ(vertex, point[0]!, point[1]!, point[2]!);
      if (turn) turned(normal.array as Float32Array, this.normals, turn, vertex * 3);
    }
    position.needsUpdate = normal.needsUpdate = true;
    this.moveEdges(edges, position);
    solid.boundingSphere = null;
    solid.boundingBox = null;
  }

  /**
   * The ends of its creases, two points a line, where some values and joints would put them. What is shown stays; in the world where it has
   * joints, else in the part.
   */
  creasesAt(values: readonly number[], joints: readonly ArrayLike<number>[]): BufferGeometry {
    const { edges } = this.drawn;
    const { starts, ends } = edgeEnds(edges);
    const corner = edges.getAttribute('corner');
    const shape = this.shape.posed(values, joints);
    const points: number[] = [];
    for (let i = 0; i < starts.length; i += 4)
      if (corner.getZ(i) !== 0)
        for (const vertex of [starts[i]!, ends[i]!]) points.push(...shape.moved(vertex).point);
    const lines = new BufferGeometry();
    return lines.setAttribute('position', new BufferAttribute(Float32Array.from(points), 3));
  }

  /** The ends of the edges go with their vertices; the faces beside an edge turn with the vertex at its start. */
  private moveEdges(edges: BufferGeometry, position: BufferAttribute): void {
    const { starts, ends } = edgeEnds(edges);
    copyPoints(edges.getAttribute('position') as BufferAttribute, position, starts);
    copyPoints(edges.getAttribute('end') as BufferAttribute, position, ends);
    if (this.joints.length === 0) return;
    for (const [name, still] of this.faces) {
      const attribute = edges.getAttribute(name) as BufferAttribute;
      for (let i = 0; i < starts.length; i++)
        turned(attribute.array as Float32Array, still, this.shape.moved(starts[i]!).turn!, i * 3);
      attribute.needsUpdate = true;
    }
  }
}

function edgeEnds(edges: BufferGeometry): { readonly starts: Uint32Array; readonly ends: Uint32Array } {
  return edges.userData as { readonly starts: Uint32Array; readonly ends: Uint32Array };
}

/** Turns the direction that stands at a place of a list. */
function turned(out: Float32Array, still: Float32Array, matrix: Float64Array, at: number): void {
  const [x, y, z] = [still[at]!, still[at + 1]!, still[at + 2]!];
  for (let row = 0; row < 3; row++)
    out[at + row] = matrix[row]! * x + matrix[4 + row]! * y + matrix[8 + row]! * z;
}

function copyPoints(to: BufferAttribute, from: BufferAttribute, vertices: Uint32Array): void {
  for (let i = 0; i < vertices.length; i++) to.copyAt(i, from, vertices[i]!);
  to.needsUpdate = true;
}

/** The skin of a mesh that a loader made; null where it has none. */
export function skinOf(mesh: SkinnedMesh): ModelSkin | null {
  const { skinIndex, skinWeight } = mesh.geometry.attributes;
  if (!mesh.isSkinnedMesh || !skinIndex || !skinWeight) return null;
  return {
    joints: numbersOf(skinIndex, 4),
    weights: numbersOf(skinWeight, 4),
    inverseBinds: mesh.skeleton.boneInverses.map(({ elements }) => elements),
  };
}

/** Whether anything changes the shape of a model's mesh. */
export function bends(part: MeshPart, geometry: BufferGeometry, skin: ModelSkin | null): boolean {
  const own = geometry.morphAttributes['position'] ?? [];
  return own.length > 0 || new ModelShape(part, { positions: [], own: [], skin }).bends;
}
