/** A triangle mesh: positions and normals three numbers a vertex in metres, triangles counter-clockwise from outside. */
export interface TriangleMesh {
  readonly positions: readonly number[];
  readonly normals: readonly number[];
  readonly indices: readonly number[];
}

type Point = readonly [number, number, number];

/** Gathers faces with flat or given normals. Vertices are not shared between faces, so edges stay sharp. */
export class MeshBuilder implements TriangleMesh {
  readonly positions: number[] = [];
  readonly normals: number[] = [];
  readonly indices: number[] = [];

  /** A convex flat polygon, counter-clockwise from outside. */
  flat(...points: readonly Point[]): void {
    const [a, b, c] = points;
    if (!a || !b || !c) return;
    const normal = cross(minus(b, a), minus(c, a));
    const length = Math.hypot(...normal) || 1;
    const unit: Point = [normal[0] / length, normal[1] / length, normal[2] / length];
    this.smooth(
      points,
      points.map(() => unit),
    );
  }

  /** A polygon with a normal for each point, for curved surfaces. */
  smooth(points: readonly Point[], normals: readonly Point[]): void {
    const first = this.positions.length / 3;
    points.forEach((point, i) => {
      this.positions.push(...point);
      this.normals.push(...(normals[i] ?? point));
    });
    for (let i = 2; i < points.length; i++) this.indices.push(first, first + i - 1, first + i);
  }
}

function minus(a: Point, b: Point): Point {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}
function cross(a: Point, b: Point): Point {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}
