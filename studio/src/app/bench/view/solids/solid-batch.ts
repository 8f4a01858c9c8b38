import {
  DynamicDrawUsage,
  InstancedBufferGeometry,
  InstancedInterleavedBuffer,
  InterleavedBufferAttribute,
  Matrix4,
  Mesh,
  Sphere,
  type BufferGeometry,
  type Object3D,
  type ShaderMaterial,
  type Vector3,
} from 'three';

/**
 * A shape as it is drawn: its triangles, and its edges as quads, which come later where `whole` says when. `oneSided`: from outside no
 * back of its faces is ever seen, or its file says that none is shown.
 */
export interface Drawn {
  readonly solid: BufferGeometry;
  readonly edges: BufferGeometry;
  readonly whole?: Promise<void>;
  readonly oneSided?: boolean;
}

/** Fills of faces seen from both sides, and from outside only. */
export interface Fills {
  readonly both: ShaderMaterial;
  readonly outside: ShaderMaterial;
}

/** The materials of a batch: fills, lines, and the flat shadow on the floor of a mesh that is closed or not. */
export interface BatchMaterials {
  readonly fill: Fills;
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

/** Where the drawings of a batch go: its fill and lines, and its shadow. */
export interface BatchPlace {
  readonly solids: Object3D;
  readonly shadows: Object3D;
}

/**
 * The numbers of a thing lie side by side, how many of what from where on: its world matrix; colour and opacity; glow and whether it is
 * chosen; roughness and metal.
 */
const ATTRIBUTES = {
  placed: { size: 16, from: 0 },
  tone: { size: 4, from: 16 },
  glow: { size: 4, from: 20 },
  surface: { size: 2, from: 24 },
} as const;
const STRIDE = 26;
const CHOSEN = ATTRIBUTES.glow.from + 3;
const OPACITY = ATTRIBUTES.tone.from + 3;

/**
 * All things of one shape, drawn together: three draw calls however many there are. What stands still costs a comparison and
 * no upload.
 */
export class SolidBatch {
  private readonly slots: Slot[] = [];
  private readonly meshes: Mesh<InstancedBufferGeometry, ShaderMaterial>[] = [];
  private capacity = 1;
  private numbers = new Float32Array(STRIDE);
  private buffer = bufferOf(this.numbers);
  private readonly fill: Mesh<InstancedBufferGeometry, ShaderMaterial>;
  private oneSided: boolean;

  constructor(
    readonly drawn: Drawn,
    private readonly materials: BatchMaterials,
    private readonly into: BatchPlace,
  ) {
    if (!drawn.solid.boundingSphere) drawn.solid.computeBoundingSphere();
    this.oneSided = drawn.oneSided === true;
    this.fill = this.instanced(drawn.solid, materials.fill.both);
    into.solids.add(this.fill);
    this.takeEdges();
  }

  /**
   * Takes over the edges that its shape has now; until it has some, neither lines nor a shadow are drawn. What is whole shows the backs of
   * its faces too, whatever its file says: a hand turns it about.
   */
  takeEdges(): void {
    const { drawn, materials, into } = this;
    const { edges, solid, whole } = drawn;
    if (edges.getIndex() === null) return;
    if (whole) this.oneSided = false;
    const lines = this.instanced(edges, materials.lines);
    lines.geometry.boundingSphere = solid.boundingSphere;
    into.solids.add(lines);
    const isClosed = edges.userData['closed'] === true;
    into.shadows.add(this.instanced(solid, isClosed ? materials.shadow.closed : materials.shadow.open));
  }

  /** A mesh that is drawn once for each thing of the batch. */
  private instanced(
    source: BufferGeometry,
    material: ShaderMaterial,
  ): Mesh<InstancedBufferGeometry, ShaderMaterial> {
    const geometry = new InstancedBufferGeometry();
    share(source, geometry);
    const mesh = new Mesh(geometry, material);
    mesh.frustumCulled = false;
    mesh.matrixAutoUpdate = false;
    this.meshes.push(mesh);
    this.layNumbers(geometry);
    geometry.instanceCount = this.slots.length;
    return mesh;
  }

  get size(): number {
    return this.slots.length;
  }

  add(id: string): Slot {
    if (this.slots.length === this.capacity) this.grow();
    const slot = { id, at: this.slots.length };
    this.slots.push(slot);
    this.numbers.fill(0, slot.at * STRIDE, (slot.at + 1) * STRIDE);
    this.resize();
    return slot;
  }

  /** Takes a thing out; the last one takes its place. */
  remove(slot: Slot): void {
    const last = this.slots.pop()!;
    if (last !== slot) {
      this.numbers.copyWithin(slot.at * STRIDE, last.at * STRIDE, (last.at + 1) * STRIDE);
      this.buffer.needsUpdate = true;
      last.at = slot.at;
      this.slots[slot.at] = last;
    }
    this.resize();
  }

  /** Puts a thing where its world matrix says, column-major; null hides it. */
  place({ at }: Slot, matrix: ArrayLike<number> | null): void {
    const { numbers } = this;
    let moved = false;
    for (let i = 0, k = at * STRIDE; i < 16; i++, k++) {
      const value = matrix ? Math.fround(matrix[i]!) : 0;
      if (numbers[k] === value) continue;
      numbers[k] = value;
      moved = true;
    }
    if (moved) this.buffer.needsUpdate = true;
  }

  look({ at }: Slot, look: Look): void {
    const { tone, glow, surface } = ATTRIBUTES;
    this.write(at, tone.from, look[0], look[1], look[2], look[3]);
    this.write(at, glow.from, look[4], look[5], look[6]);
    this.write(at, surface.from, look[7], look[8]);
  }

  choose({ at }: Slot, chosen: boolean): void {
    this.write(at, CHOSEN, chosen ? 1 : 0);
  }

  /**
   * Leaves out the backs of faces where none can be seen from a place: they are half of the work of drawing. They are seen of what is
   * mirrored or see-through, and where the place lies within a thing or nearer to it than `near`.
   */
  seenFrom(eye: Vector3, near: number): void {
    const { both, outside } = this.materials.fill;
    this.fill.material =
      this.oneSided && !this.slots.some(({ at }) => this.showsBacks(at, eye, near)) ? outside : both;
  }

  private showsBacks(at: number, eye: Vector3, near: number): boolean {
    const { numbers } = this;
    if (numbers[at * STRIDE + OPACITY]! < 1) return true;
    placed.fromArray(numbers, at * STRIDE);
    if (placed.determinant() < 0) return true;
    around.copy(this.drawn.solid.boundingSphere!).applyMatrix4(placed);
    return around.distanceToPoint(eye) < near;
  }

  dispose(): void {
    for (const mesh of this.meshes) {
      mesh.geometry.dispose();
      mesh.removeFromParent();
    }
  }

  private write(at: number, from: number, ...values: readonly number[]): void {
    const { numbers } = this;
    let k = at * STRIDE + from;
    for (const value of values) {
      const rounded = Math.fround(value);
      if (numbers[k] !== rounded) {
        numbers[k] = rounded;
        this.buffer.needsUpdate = true;
      }
      k++;
    }
  }

  private grow(): void {
    this.capacity *= 2;
    const numbers = new Float32Array(this.capacity * STRIDE);
    numbers.set(this.numbers);
    this.numbers = numbers;
    this.buffer = bufferOf(numbers);
    for (const { geometry } of this.meshes) {
      geometry.dispose();
      this.layNumbers(geometry);
    }
  }

  private layNumbers(geometry: InstancedBufferGeometry): void {
    for (const [name, { size, from }] of Object.entries(ATTRIBUTES))
      geometry.setAttribute(name, new InterleavedBufferAttribute(this.buffer, size, from));
  }

  private resize(): void {
    for (const { geometry } of this.meshes) geometry.instanceCount = this.slots.length;
  }
}

const placed = new Matrix4();
const around = new Sphere();

function bufferOf(numbers: Float32Array): InstancedInterleavedBuffer {
  return new InstancedInterleavedBuffer(numbers, STRIDE).setUsage(DynamicDrawUsage);
}

/** Has a geometry drawn by the numbers of another one. */
function share(source: BufferGeometry, geometry: InstancedBufferGeometry): void {
  for (const [attribute, values] of Object.entries(source.attributes))
    geometry.setAttribute(attribute, values);
  geometry.setIndex(source.getIndex());
  // The renderer sorts by the middle of this; without it, it would go through all vertices of each mesh.
  geometry.boundingSphere = source.boundingSphere ?? geometry.boundingSphere;
}
