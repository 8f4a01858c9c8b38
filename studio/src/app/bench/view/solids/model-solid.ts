import { BufferAttribute, BufferGeometry, type SkinnedMesh } from 'three';
import {
  blendMatrix,
  Deformation,
  encodeName,
  jointMatrices,
  type MeshPart,
  type SkinWeights,
} from '@kaizen/core';
import { edgeQuads } from './edge-quads';
import { numbersOf } from './numbers-of';
import type { Drawn } from './solid-batch';

/** The joints of a skin as a model has them: which joints pull each vertex, and where each stood when it was bound. */
export interface ModelSkin extends SkinWeights {
  readonly inverseBinds: readonly ArrayLike<number>[];
}

/**
 * A model's mesh that changes its shape: by its own targets, by targets and a rounded squash made here, and by the joints of its
 * skin. Its points are moved anew for each frame that shows another shape.
 */
export class ModelSolid {
  readonly drawn: Drawn;
  /** The properties it is moved by, in the order of `show`'s values: its own targets first. */
  readonly properties: readonly string[];
  /** Parts that are its joints, in order; empty where it has no skin. What a skin moves lies in the world. */
  readonly joints: readonly string[];
  private readonly deformation: Deformation;
  private readonly own: readonly Float32Array[];
  private readonly still: Float32Array;
  private readonly normals: Float32Array;
  private readonly faces: readonly (readonly [string, Float32Array])[];
  private readonly matrices: Float64Array;
  private shown = Float64Array.of(NaN);
  private readonly point = new Float64Array(3);
  private readonly byOwn = new Float64Array(3);
  private readonly blend = new Float64Array(16);

  constructor(
    part: MeshPart,
    geometry: BufferGeometry,
    private readonly skin: ModelSkin | null,
  ) {
    const own = part.morphs.filter(({ moves }) => moves === undefined);
    const targets = geometry.morphAttributes['position'] ?? [];
    this.own = own.slice(0, targets.length).map((_, i) => numbersOf(targets[i]!, 3));
    this.deformation = new Deformation(part);
    this.properties = [
      ...own.slice(0, targets.length).map(({ name }) => `morph.${encodeName(name)}`),
      ...this.deformation.properties,
    ];
    this.joints = (skin && part.geometry.shape === 'asset' && part.geometry.skin) || [];
    this.matrices = new Float64Array(16 * this.joints.length);
    this.still = numbersOf(geometry.getAttribute('position'), 3);
    const solid = new BufferGeometry();
    solid.setAttribute('position', new BufferAttribute(this.still.slice(), 3));
    if (geometry.index) solid.setIndex(geometry.index);
    const normal = geometry.getAttribute('normal');
    if (normal) solid.setAttribute('normal', new BufferAttribute(numbersOf(normal, 3), 3));
    else solid.computeVertexNormals();
    this.normals = Float32Array.from(solid.getAttribute('normal').array);
    const uv = geometry.getAttribute('uv');
    solid.setAttribute('uv', uv ?? new BufferAttribute(new Float32Array((this.still.length / 3) * 2), 2));
    solid.userData = { deforms: true };
    this.drawn = { solid, edges: edgeQuads(solid) };
    this.faces = (['left', 'right'] as const).map((name) => [
      name,
      Float32Array.from(this.drawn.edges.getAttribute(name).array),
    ]);
  }

  /** Moves all points to where some values and the world matrices of the joints put them; nothing where that is shown already. */
  show(values: readonly number[], joints: readonly ArrayLike<number>[]): void {
    if (this.skin) jointMatrices(this.matrices, joints, this.skin.inverseBinds);
    const asked = Float64Array.of(...values, ...this.matrices);
    if (asked.every((value, i) => value === this.shown[i])) return;
    this.shown = asked;
    const { solid, edges } = this.drawn;
    const position = solid.getAttribute('position') as BufferAttribute;
    const normal = solid.getAttribute('normal') as BufferAttribute;
    for (let vertex = 0; vertex < position.count; vertex++)
      this.moveVertex(vertex, values, position.array as Float32Array, normal.array as Float32Array);
    position.needsUpdate = normal.needsUpdate = true;
    this.moveEdges(edges, position);
    solid.boundingSphere = null;
    solid.boundingBox = null;
  }

  private moveVertex(
    vertex: number,
    values: readonly number[],
    positions: Float32Array,
    normals: Float32Array,
  ): void {
    const { point, byOwn, blend, own, skin } = this;
    const at = vertex * 3;
    for (let row = 0; row < 3; row++) {
      point[row] = this.still[at + row]!;
      byOwn[row] = 0;
      for (let t = 0; t < own.length; t++) byOwn[row] = byOwn[row]! + values[t]! * own[t]![at + row]!;
    }
    this.deformation.move(point, values.slice(own.length), byOwn);
    if (!skin || this.joints.length === 0) {
      positions.set(point, at);
      return;
    }
    blendMatrix(blend, this.matrices, skin, vertex);
    const [x, y, z] = point as unknown as readonly [number, number, number];
    for (let row = 0; row < 3; row++)
      positions[at + row] = blend[row]! * x + blend[4 + row]! * y + blend[8 + row]! * z + blend[12 + row]!;
    turn(normals, this.normals, blend, at);
  }

  /** The ends of the edges go with their vertices; the faces beside an edge turn with the vertex at its start. */
  private moveEdges(edges: BufferGeometry, position: BufferAttribute): void {
    const { starts, ends } = edges.userData as { readonly starts: Uint32Array; readonly ends: Uint32Array };
    copyPoints(edges.getAttribute('position') as BufferAttribute, position, starts);
    copyPoints(edges.getAttribute('end') as BufferAttribute, position, ends);
    if (!this.skin || this.joints.length === 0) return;
    for (const [name, still] of this.faces) {
      const attribute = edges.getAttribute(name) as BufferAttribute;
      for (let i = 0; i < starts.length; i++) {
        blendMatrix(this.blend, this.matrices, this.skin, starts[i]!);
        turn(attribute.array as Float32Array, still, this.blend, i * 3);
      }
      attribute.needsUpdate = true;
    }
  }
}

/** Turns the direction that stands at a place of a list. */
function turn(out: Float32Array, still: Float32Array, matrix: Float64Array, at: number): void {
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
  const joints = part.geometry.shape === 'asset' ? (part.geometry.skin?.length ?? 0) : 0;
  return (
    (skin !== null && joints > 0 && joints === skin.inverseBinds.length) ||
    (geometry.morphAttributes['position'] ?? []).length > 0 ||
    new Deformation(part).acts
  );
}
