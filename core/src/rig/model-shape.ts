import { encodeName, type MeshPart } from '../project';
import { Deformation } from './deformation';
import { blendMatrix, jointMatrices, type SkinWeights } from './skin';

/** A skin as a model has it: which joints pull each vertex, and where each stood when it was bound. */
export interface ModelSkin extends SkinWeights {
  readonly inverseBinds: readonly ArrayLike<number>[];
}

/** The vertices of a model's mesh, three numbers each, how far its own targets move them, and its skin. */
export interface ModelVertices {
  readonly positions: ArrayLike<number>;
  readonly own: readonly ArrayLike<number>[];
  readonly skin: ModelSkin | null;
}

/** Where one vertex is: its place, and the matrix, column-major, by which joints turned what stands there; null where none do. */
export interface MovedVertex {
  readonly point: Float64Array;
  readonly turn: Float64Array | null;
}

/**
 * The shape of a model's mesh as its part's channels and its joints have it: by its own targets, by targets and a rounded squash made
 * here, and by its skin. What a skin moves lies in the world, all else in the part.
 */
export class ModelShape {
  /** The properties it is moved by, in the order of `pose`'s values: its own targets first. */
  readonly properties: readonly string[];
  /** Parts that are its joints, in order; empty where no skin moves it. */
  readonly joints: readonly string[];
  private readonly deformation: Deformation;
  private readonly own: readonly ArrayLike<number>[];
  private readonly matrices: Float64Array;
  private values: readonly number[] = [];
  private deforming: readonly number[] = [];
  private readonly byOwn = new Float64Array(3);
  private readonly point = new Float64Array(3);
  private readonly blend = new Float64Array(16);
  private readonly plain: MovedVertex = { point: this.point, turn: null };
  private readonly joined: MovedVertex = { point: this.point, turn: this.blend };

  constructor(
    private readonly part: MeshPart,
    private readonly model: ModelVertices,
  ) {
    const own = part.morphs.filter(({ moves }) => moves === undefined).slice(0, model.own.length);
    this.own = model.own.slice(0, own.length);
    this.deformation = new Deformation(part);
    this.properties = [...own.map(({ name }) => `morph.${encodeName(name)}`), ...this.deformation.properties];
    const joints = (part.geometry.shape === 'asset' && part.geometry.skin) || [];
    this.joints = model.skin && joints.length === model.skin.inverseBinds.length ? joints : [];
    this.matrices = new Float64Array(16 * this.joints.length);
  }

  /** Whether anything changes it at all. */
  get bends(): boolean {
    return this.properties.length > 0 || this.joints.length > 0;
  }

  /** Takes the values of its properties and the world matrices of its joints; false where it has been so already. */
  pose(values: readonly number[], joints: readonly ArrayLike<number>[]): boolean {
    const { matrices, own } = this;
    const before = matrices.slice();
    if (this.joints.length > 0) jointMatrices(matrices, joints, this.model.skin!.inverseBinds);
    const same =
      values.length === this.values.length &&
      values.every((value, i) => value === this.values[i]) &&
      matrices.every((number, i) => number === before[i]);
    this.values = values;
    this.deforming = values.slice(own.length);
    return !same;
  }

  /** The same mesh in another pose, beside this one. */
  posed(values: readonly number[], joints: readonly ArrayLike<number>[]): ModelShape {
    const other = new ModelShape(this.part, this.model);
    other.pose(values, joints);
    return other;
  }

  /** Where a vertex is; what is given is written anew by the next call. */
  moved(vertex: number): MovedVertex {
    const { point, byOwn, blend, own, values, model } = this;
    const at = vertex * 3;
    for (let row = 0; row < 3; row++) {
      point[row] = model.positions[at + row]!;
      byOwn[row] = 0;
      for (let t = 0; t < own.length; t++) byOwn[row] = byOwn[row]! + values[t]! * own[t]![at + row]!;
    }
    this.deformation.move(point, this.deforming, byOwn);
    if (this.joints.length === 0) return this.plain;
    blendMatrix(blend, this.matrices, model.skin!, vertex);
    const [x, y, z] = point as unknown as readonly [number, number, number];
    for (let row = 0; row < 3; row++)
      point[row] = blend[row]! * x + blend[4 + row]! * y + blend[8 + row]! * z + blend[12 + row]!;
    return this.joined;
  }
}
