import {
  BufferAttribute,
  BufferGeometry,
  FrontSide,
  Group,
  type ShaderMaterial,
  type Texture,
  type Vector3,
} from 'three';
import { shapeMesh, type Geometry } from '@kaizen/core';
import { edgeMaterial, fillMaterial, shadowMaterial, type Inks } from '../ink-material';
import type { DeformedSolid } from './deformed-solid';
import type { Arrivals } from '../arrivals';
import type { AssetMesh } from '../plain-meshes';
import type { PreparedMesh, WaitingMesh } from '../../../workers/mesh-api';
import { edgeQuads, indicesOf, layEdges } from './edge-quads';
import type { ModelSolid } from './model-solid';
import { numbersOf } from './numbers-of';
import { takeTree } from './ray-on-solid';
import { SolidBatch, type Drawn, type Fills, type Slot } from './solid-batch';

/** One solid of a part: its batch and its place in it. */
export interface Solid {
  readonly batch: SolidBatch;
  readonly slot: Slot;
}

type Shape = Exclude<Geometry, { shape: 'asset' }>;
/** What of a model's mesh is drawn. */
type SolidMesh = Pick<AssetMesh, 'geometry' | 'map' | 'oneSided'>;

/** The solids of all parts, those of one shape together. A shape is one by what it says, not by which object says it. */
export class Solids {
  readonly group = new Group();
  readonly shadows = new Group();
  private readonly batches = new Map<string, SolidBatch>();
  private readonly lines: ShaderMaterial;
  private readonly shadow: { readonly closed: ShaderMaterial; readonly open: ShaderMaterial };
  private readonly plainFill: Fills;
  private readonly pictureFills = new Map<Texture, Fills>();

  constructor(
    private readonly inks: Inks,
    /** Finds the edges and the tree of a model's mesh. */
    private readonly prepare: (mesh: WaitingMesh) => Promise<PreparedMesh>,
    /** Told of edges that are awaited, and that they have come. */
    private readonly awaited: Pick<Arrivals, 'await' | 'arrived'>,
  ) {
    this.lines = edgeMaterial(inks);
    this.shadow = { closed: shadowMaterial(inks, true), open: shadowMaterial(inks, false) };
    this.plainFill = fills(inks, null);
  }

  addShape(part: string, geometry: Shape): Solid {
    const key = JSON.stringify(geometry);
    const make = () => {
      const solid = withNormals(shapeGeometry(geometry));
      const edges = edgeQuads(solid);
      return { solid, edges, oneSided: edges.userData['closed'] === true && !isDrawnByHand(geometry) };
    };
    return this.put(part, key, () => once(key, make), null);
  }

  /** A solid of its own, as it changes its shape. */
  addDeformed(part: string, { drawn }: DeformedSolid): Solid {
    return this.put(part, `deformed ${part}`, () => drawn, null);
  }

  /** One mesh of a model that changes its shape: a solid of its own. */
  addBending(part: string, number: number, { drawn }: ModelSolid, map: Texture | null): Solid {
    return this.put(part, `bending ${part} ${number}`, () => drawn, map);
  }

  /** A mesh of a model: shown at once, its edges as soon as they are found. */
  addMesh(part: string, { geometry, map, oneSided }: SolidMesh): Solid {
    const key = `${geometry.uuid} ${map?.uuid ?? ''} ${oneSided}`;
    const solid = this.put(part, key, () => once(key, () => this.drawnLater(geometry, oneSided)), map);
    const { batch } = solid;
    const { whole } = batch.drawn;
    if (batch.size > 1 || !whole) return solid;
    this.awaited.await();
    void whole.then(() => {
      batch.takeEdges();
      this.awaited.arrived();
    });
    return solid;
  }

  private drawnLater(geometry: BufferGeometry, oneSided: boolean): Drawn {
    const solid = withNormals(geometry);
    const edges = new BufferGeometry();
    solid.userData['awaited'] = true;
    const places = solid.getAttribute('position');
    const numbers = () => {
      const indices = indicesOf(solid);
      return { positions: numbersOf(places, 3), indices: indices && new Uint32Array(indices) };
    };
    const whole = this.prepare({ vertices: places.count, numbers }).then((prepared) => {
      layEdges(edges, prepared.edges);
      takeTree(solid, prepared.tree);
      delete solid.userData['awaited'];
    });
    return { solid, edges, whole, oneSided };
  }

  private put(part: string, key: string, make: () => Drawn, map: Texture | null): Solid {
    let batch = this.batches.get(key);
    if (!batch) {
      const fill = this.fillWith(map);
      const drawn = make();
      batch = new SolidBatch(
        drawn,
        { fill, lines: this.lines, shadow: this.shadow },
        { solids: this.group, shadows: this.shadows },
      );
      this.batches.set(key, batch);
    }
    return { batch, slot: batch.add(part) };
  }

  /** Called before a camera draws, with its place and how near to it things are still drawn. */
  seenFrom(eye: Vector3, near: number): void {
    for (const batch of this.batches.values()) batch.seenFrom(eye, near);
  }

  remove({ batch, slot }: Solid): void {
    batch.remove(slot);
    if (batch.size > 0) return;
    batch.dispose();
    for (const [key, each] of this.batches) if (each === batch) this.batches.delete(key);
  }

  dispose(): void {
    for (const batch of this.batches.values()) batch.dispose();
    const materials = [
      this.lines,
      ...Object.values(this.shadow),
      ...[this.plainFill, ...this.pictureFills.values()].flatMap(({ both, outside }) => [both, outside]),
    ];
    for (const material of materials) material.dispose();
  }

  private fillWith(map: Texture | null): Fills {
    if (!map) return this.plainFill;
    let fill = this.pictureFills.get(map);
    if (!fill) this.pictureFills.set(map, (fill = fills(this.inks, map)));
    return fill;
  }
}

function fills(inks: Inks, map: Texture | null): Fills {
  return { both: fillMaterial(inks, map), outside: fillMaterial(inks, map, FrontSide) };
}

/** Whether a hand draws the shape's outline: where that crosses itself, some faces look inwards. */
function isDrawnByHand(geometry: Shape): boolean {
  return 'outline' in geometry || 'profile' in geometry;
}

/** Shapes made last, so that a part taken away and put back, or opened again, is not cut anew. */
const made = new Map<string, Drawn>();
const MOST_MADE = 500;

function once(key: string, make: () => Drawn): Drawn {
  let drawn = made.get(key);
  if (!drawn) {
    drawn = make();
    if (made.size >= MOST_MADE) made.delete(made.keys().next().value!);
    made.set(key, drawn);
  }
  return drawn;
}

/** A solid with normals, which every fill asks for. */
function withNormals(solid: BufferGeometry): BufferGeometry {
  if (!solid.getAttribute('normal')) solid.computeVertexNormals();
  return solid;
}

export function shapeGeometry(geometry: Shape): BufferGeometry {
  const { positions, normals, indices } = shapeMesh(geometry);
  const buffer = new BufferGeometry();
  buffer.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
  buffer.setAttribute('normal', new BufferAttribute(Float32Array.from(normals), 3));
  buffer.setIndex(Array.from(indices));
  return buffer;
}
