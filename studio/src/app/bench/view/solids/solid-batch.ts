import {
  DynamicDrawUsage,
  Group,
  InstancedBufferAttribute,
  InstancedBufferGeometry,
  Mesh,
  type BufferGeometry,
  type ShaderMaterial,
} from 'three';

/** A shape as it is drawn: its triangles, and its edges as quads, which come later where `whole` says when. */
export interface Drawn {
  readonly solid: BufferGeometry;
  readonly edges: BufferGeometry;
  readonly whole?: Promise<void>;
}

/** The materials of a batch: fills, lines, and the flat shadow on the floor of a mesh that is closed or not. */
export interface BatchMaterials {
  readonly fill: ShaderMaterial;
  readonly lines: ShaderMaterial;
  readonly shadow: { readonly closed: ShaderMaterial; readonly open: ShaderMaterial };
}

/** One thing in a batch; its place in the arrays changes when others go. */
export interface Slot {
  readonly id: string;
  at: number;
}

/** What a thing looks like: colour and opacity, glow, how rough and how metallic it is; each 0 to 1. */
export type Look = readonly [
  r: number,
  g: number,
  b: number,
  a: number,
  glowR: number,
  glowG: number,
  glowB: number,
  roughness: number,
  metallic: number,
];

/** Per thing: its world matrix; colour and opacity; glow and whether it is chosen; roughness and metal. */
const ATTRIBUTES = { placed: 16, tone: 4, glow: 4, surface: 2 } as const;
type Name = keyof typeof ATTRIBUTES;
const NAMES = Object.keys(ATTRIBUTES) as Name[];

/**
 * All things of one shape, drawn together: three draw calls however many there are. What stands still costs a comparison and
 * no upload.
 */
export class SolidBatch {
  readonly group = new Group();
  readonly shadow = new Group();
  private readonly slots: Slot[] = [];
  private capacity = 0;
  private readonly geometries: InstancedBufferGeometry[] = [];
  private attributes = {} as Record<Name, InstancedBufferAttribute>;

  constructor(
    readonly drawn: Drawn,
    private readonly materials: BatchMaterials,
  ) {
    if (!drawn.solid.boundingSphere) drawn.solid.computeBoundingSphere();
    this.group.add(this.instanced(drawn.solid, materials.fill));
    this.takeEdges();
  }

  /** Takes over the edges that its shape has now; until it has some, neither lines nor a shadow are drawn. */
  takeEdges(): void {
    const { drawn, materials } = this;
    const { edges, solid } = drawn;
    if (edges.getIndex() === null) return;
    const lines = this.instanced(edges, materials.lines);
    lines.geometry.boundingSphere = solid.boundingSphere;
    this.group.add(lines);
    const isClosed = edges.userData['closed'] === true;
    this.shadow.add(this.instanced(solid, isClosed ? materials.shadow.closed : materials.shadow.open));
  }

  /** A mesh that is drawn once for each thing of the batch. */
  private instanced(
    source: BufferGeometry,
    material: ShaderMaterial,
  ): Mesh<InstancedBufferGeometry, ShaderMaterial> {
    const geometry = new InstancedBufferGeometry();
    share(source, geometry);
    for (const [name, attribute] of Object.entries(this.attributes)) geometry.setAttribute(name, attribute);
    geometry.instanceCount = this.slots.length;
    this.geometries.push(geometry);
    const mesh = new Mesh(geometry, material);
    mesh.frustumCulled = false;
    mesh.matrixAutoUpdate = false;
    return mesh;
  }

  get size(): number {
    return this.slots.length;
  }

  add(id: string): Slot {
    if (this.slots.length === this.capacity) this.grow();
    const slot = { id, at: this.slots.length };
    this.slots.push(slot);
    for (const name of NAMES) this.array(name).fill(0, ...this.range(name, slot.at));
    this.resize();
    return slot;
  }

  /** Takes a thing out; the last one takes its place. */
  remove(slot: Slot): void {
    const last = this.slots.pop()!;
    if (last !== slot) {
      for (const name of NAMES) {
        this.array(name).copyWithin(this.range(name, slot.at)[0], ...this.range(name, last.at));
        this.attributes[name].needsUpdate = true;
      }
      last.at = slot.at;
      this.slots[slot.at] = last;
    }
    this.resize();
  }

  /** Puts a thing where its world matrix says, column-major; null hides it. */
  place({ at }: Slot, matrix: ArrayLike<number> | null): void {
    const array = this.array('placed');
    let moved = false;
    for (let i = 0, k = at * 16; i < 16; i++, k++) {
      const value = matrix ? Math.fround(matrix[i]!) : 0;
      if (array[k] === value) continue;
      array[k] = value;
      moved = true;
    }
    if (moved) this.attributes.placed.needsUpdate = true;
  }

  look({ at }: Slot, look: Look): void {
    this.write('tone', at, 0, look[0], look[1], look[2], look[3]);
    this.write('glow', at, 0, look[4], look[5], look[6]);
    this.write('surface', at, 0, look[7], look[8]);
  }

  choose({ at }: Slot, chosen: boolean): void {
    this.write('glow', at, 3, chosen ? 1 : 0);
  }

  dispose(): void {
    for (const geometry of this.geometries) geometry.dispose();
    this.group.removeFromParent();
    this.shadow.removeFromParent();
  }

  private write(name: Name, at: number, from: number, ...values: readonly number[]): void {
    const array = this.array(name);
    let k = at * ATTRIBUTES[name] + from;
    for (const value of values) {
      const rounded = Math.fround(value);
      if (array[k] !== rounded) {
        array[k] = rounded;
        this.attributes[name].needsUpdate = true;
      }
      k++;
    }
  }

  private array(name: Name): Float32Array {
    return this.attributes[name].array as Float32Array;
  }

  private range(name: Name, at: number): readonly [number, number] {
    return [at * ATTRIBUTES[name], (at + 1) * ATTRIBUTES[name]];
  }

  private grow(): void {
    const before = this.attributes;
    this.capacity = Math.max(4, this.capacity * 2);
    for (const geometry of this.geometries) geometry.dispose();
    this.attributes = Object.fromEntries(
      NAMES.map((name) => {
        const array = new Float32Array(this.capacity * ATTRIBUTES[name]);
        if (before[name]) array.set(before[name].array);
        const attribute = new InstancedBufferAttribute(array, ATTRIBUTES[name]);
        attribute.setUsage(DynamicDrawUsage);
        for (const geometry of this.geometries) geometry.setAttribute(name, attribute);
        return [name, attribute];
      }),
    ) as Record<Name, InstancedBufferAttribute>;
  }

  private resize(): void {
    for (const geometry of this.geometries) geometry.instanceCount = this.slots.length;
  }
}

/** Has a geometry drawn by the numbers of another one. */
function share(source: BufferGeometry, geometry: InstancedBufferGeometry): void {
  for (const [attribute, values] of Object.entries(source.attributes))
    geometry.setAttribute(attribute, values);
  geometry.setIndex(source.getIndex());
  // The renderer sorts by the middle of this; without it, it would go through all vertices of each mesh.
  geometry.boundingSphere = source.boundingSphere ?? geometry.boundingSphere;
}
