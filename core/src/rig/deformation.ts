import { encodeName, type MorphMove, type Part } from '../project';
import { Bulge } from './bulge';
import { LEAST_SQUASH } from './local-matrix';

/** How a part's mesh is deformed, in its own space: made morph targets, then the rounded squash. */
export class Deformation {
  /** The properties it reads: a morph target's value each, and last the squash where it is rounded. */
  readonly properties: readonly string[];
  private readonly targets: readonly (readonly MorphMove[])[];
  private readonly bulge: Bulge | null;
  private readonly moved = new Float64Array(3);

  constructor(part: Part) {
    const made = part.kind === 'mesh' ? part.morphs.filter(({ moves }) => moves !== undefined) : [];
    const { squash } = part;
    this.targets = made.map(({ moves }) => moves!);
    this.bulge = squash?.round
      ? new Bulge({ axis: squash.axis, anchor: squash.anchor, ...squash.round })
      : null;
    this.properties = [
      ...made.map(({ name }) => `morph.${encodeName(name)}`),
      ...(this.bulge ? ['squash'] : []),
    ];
  }

  /** Whether it does anything at all. */
  get acts(): boolean {
    return this.properties.length > 0;
  }

  /**
   * Moves a point of the undeformed mesh in place; `values` are those of `properties`, in their order. `own` is how far targets
   * that the mesh has of itself move the point; they count with the made ones.
   */
  move(point: Float64Array, values: ArrayLike<number>, own?: ArrayLike<number>): void {
    const { moved, targets } = this;
    moved.set(point);
    if (own) for (let row = 0; row < 3; row++) moved[row] = moved[row]! + own[row]!;
    for (let t = 0; t < targets.length; t++) {
      const value = values[t]!;
      if (value !== 0) for (const move of targets[t]!) addMove(moved, point, move, value);
    }
    point.set(moved);
    if (!this.bulge) return;
    this.bulge.setLength(Math.max(LEAST_SQUASH, 1 + values[targets.length]!));
    this.bulge.move(point);
  }
}

/** Adds `value` times what one move does to a point: w·(by + (scale − 1)·(p − at)), w falling to 0 at its radius. */
function addMove(
  out: Float64Array,
  p: Float64Array,
  { at, radius, by, scale }: MorphMove,
  value: number,
): void {
  const x = p[0]! - at[0];
  const y = p[1]! - at[1];
  const z = p[2]! - at[2];
  const u = Math.hypot(x, y, z) / radius;
  if (u >= 1) return;
  const w = value * (1 - u * u * (3 - 2 * u));
  out[0] = out[0]! + w * (by[0] + (scale - 1) * x);
  out[1] = out[1]! + w * (by[1] + (scale - 1) * y);
  out[2] = out[2]! + w * (by[2] + (scale - 1) * z);
}
