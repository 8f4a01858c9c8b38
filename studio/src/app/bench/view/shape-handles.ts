import { changePart, replacedAt, type MeshPart, type Project, type Shape, type Vec3 } from '@kaizen/core';

/** A length of a part that is dragged: where its handle stands and which way it grows, in the part's own space. */
export interface ShapeHandle {
  readonly label: string;
  readonly at: Vec3;
  readonly along: Vec3;
  /** Its value where the handle stands `way` metres along from the middle that it is counted from. */
  readonly value: number;
  /** How much the value changes for a metre of the handle's way. */
  readonly factor: number;
  readonly edit: (project: Project, value: number) => Project;
}

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** No length becomes shorter than this, in metres. */
const LEAST = 1e-3;

/** The handles of a mesh part: the sizes of its shape, the bounds of its rounded squash, the soft radii of its target shapes. */
export function shapeHandles(part: MeshPart): readonly ShapeHandle[] {
  return [...sizeHandles(part), ...boundHandles(part), ...radiusHandles(part)];
}

function sizeHandles(part: MeshPart): readonly ShapeHandle[] {
  const { geometry } = part;
  const handle = (
    label: string,
    axis: number,
    distance: number,
    value: number,
    factor: number,
    change: (shape: Shape, value: number) => Shape,
  ): ShapeHandle => ({
    label,
    at: AXES[axis]!.map((n) => n * distance) as unknown as Vec3,
    along: AXES[axis]!,
    value,
    factor,
    edit: (project, next) =>
      changePart(project, part.id, (each) =>
        each.kind === 'mesh' && each.geometry.shape !== 'asset'
          ? { ...each, geometry: change(each.geometry, Math.max(LEAST, next)) }
          : each,
      ),
  });
  const numbered = (name: string, axis: number, distance: number, value: number, factor: number) =>
    handle(name, axis, distance, value, factor, (shape, next) => ({ ...shape, [name]: next }));
  switch (geometry.shape) {
    case 'box':
    case 'plane': {
      const letters = geometry.shape === 'box' ? ['X', 'Y', 'Z'] : ['X', 'Z'];
      const size: readonly number[] = geometry.size;
      return size.map((extent, i) =>
        handle(`extent ${letters[i]!}`, 'XYZ'.indexOf(letters[i]!), extent / 2, extent, 2, (shape, next) =>
          'size' in shape ? ({ ...shape, size: replacedAt(shape.size, i, next) } as Shape) : shape,
        ),
      );
    }
    case 'cylinder':
      return [
        numbered('radius', 0, geometry.radius, geometry.radius, 1),
        numbered('height', 1, geometry.height / 2, geometry.height, 2),
      ];
    case 'sphere':
      return [numbered('radius', 0, geometry.radius, geometry.radius, 1)];
    case 'torus':
      return [
        numbered('radius', 0, geometry.radius, geometry.radius, 1),
        numbered('tube', 1, geometry.tube, geometry.tube, 1),
      ];
    case 'gear':
      return [numbered('width', 1, geometry.width / 2, geometry.width, 2)];
    case 'extrude':
      return [numbered('depth', 2, geometry.depth / 2, geometry.depth, 2)];
    case 'lathe':
    case 'asset':
      return [];
  }
}

/** Where the rounded squash begins and ends, along its axis from the contact; also beyond the part. */
function boundHandles(part: MeshPart): readonly ShapeHandle[] {
  const { squash } = part;
  const round = squash?.round;
  if (!round) return [];
  const along = AXES['xyz'.indexOf(squash.axis)]!;
  return (['from', 'to'] as const).map((end): ShapeHandle => ({
    label: `rounded ${end === 'from' ? 'from' : 'up to'}`,
    at: squash.anchor.map((n, i) => n + along[i]! * round[end]) as unknown as Vec3,
    along,
    value: round[end],
    factor: 1,
    edit: (project, next) =>
      changePart(project, part.id, (each) => {
        const now = each.squash?.round;
        if (!each.squash || !now) return each;
        const bounds = { ...now, [end]: next };
        return bounds.from < bounds.to - LEAST
          ? { ...each, squash: { ...each.squash, round: bounds } }
          : each;
      }),
  }));
}

function radiusHandles(part: MeshPart): readonly ShapeHandle[] {
  return part.morphs.flatMap(({ name, moves }) =>
    (moves ?? []).map(({ at, radius }, i): ShapeHandle => ({
      label: `soft radius of ${name}`,
      at: [at[0] + radius, at[1], at[2]],
      along: AXES[0]!,
      value: radius,
      factor: 1,
      edit: (project, next) =>
        changePart(project, part.id, (each) =>
          each.kind === 'mesh'
            ? {
                ...each,
                morphs: each.morphs.map((morph) =>
                  morph.name === name && morph.moves
                    ? {
                        ...morph,
                        moves: morph.moves.map((move, k) =>
                          k === i ? { ...move, radius: Math.max(LEAST, next) } : move,
                        ),
                      }
                    : morph,
                ),
              }
            : each,
        ),
    })),
  );
}
