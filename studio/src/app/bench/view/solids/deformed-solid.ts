import { BufferAttribute, BufferGeometry } from 'three';
import {
  bendsUnder,
  Deformation,
  greatestOf,
  refineMesh,
  shapeMesh,
  type Geometry,
  type Part,
} from '@kaizen/core';
import { edgeQuads } from './edge-quads';
import type { Drawn } from './solid-batch';

type Shape = Exclude<Geometry, { shape: 'asset' }>;

/** Values that a mesh is cut finely enough for, and what an edge's middle may be off, as a share of the mesh's size. */
const SQUASHES = [-0.5, 0.5] as const;
const MORPHS = [0, 1] as const;
const TOLERANCE = 0.002;

/** A shape that is deformed as its part's channels say: its vertices and the ends of its edges, moved anew for each frame. */
export class DeformedSolid {
  readonly drawn: Drawn;
  /** The properties it is moved by, in the order of `show`'s values. */
  readonly properties: readonly string[];
  private readonly moving: readonly { readonly attribute: BufferAttribute; readonly still: Float32Array }[];
  private shown: readonly number[] = [];
  private readonly point = new Float64Array(3);

  constructor(
    geometry: Shape,
    private readonly deformation: Deformation,
  ) {
    this.properties = deformation.properties;
    const plain = shapeMesh(geometry);
    const size = greatestOf(plain.positions.map(Math.abs));
    const ranges = this.properties.map((property) => (property === 'squash' ? SQUASHES : MORPHS));
    const { positions, normals, indices } = refineMesh(
      plain,
      bendsUnder(deformation, ranges, TOLERANCE * size),
    );
    const solid = new BufferGeometry();
    solid.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
    solid.setAttribute('normal', new BufferAttribute(Float32Array.from(normals), 3));
    solid.setIndex(Array.from(indices));
    solid.userData = { deforms: true };
    const edges = edgeQuads(solid);
    this.drawn = { solid, edges };
    this.moving = [
      solid.getAttribute('position'),
      edges.getAttribute('position'),
      edges.getAttribute('end'),
    ].map((attribute) => ({
      attribute: attribute as BufferAttribute,
      still: Float32Array.from(attribute.array),
    }));
  }

  /** Moves all points to where they are at some values; nothing where those are shown already. */
  show(values: readonly number[]): void {
    if (values.length === this.shown.length && values.every((value, i) => value === this.shown[i])) return;
    this.shown = values;
    const { point } = this;
    for (const { attribute, still } of this.moving) {
      const array = attribute.array as Float32Array;
      for (let i = 0; i < still.length; i += 3) {
        for (let row = 0; row < 3; row++) point[row] = still[i + row]!;
        this.deformation.move(point, values);
        for (let row = 0; row < 3; row++) array[i + row] = point[row]!;
      }
      attribute.needsUpdate = true;
    }
    this.drawn.solid.boundingSphere = null;
    this.drawn.solid.boundingBox = null;
  }
}

/** The deformation of a part that is a simple shape; null where nothing deforms it. */
export function deformedSolid(part: Part): DeformedSolid | null {
  if (part.kind !== 'mesh' || part.geometry.shape === 'asset') return null;
  const deformation = new Deformation(part);
  return deformation.acts ? new DeformedSolid(part.geometry, deformation) : null;
}
