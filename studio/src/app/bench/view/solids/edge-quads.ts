import { BufferAttribute, BufferGeometry, Vector3 } from 'three';

/** Faces that meet at less than this, in degrees, have no line between them unless it is part of the silhouette. */
const CREASE_ANGLE = 32;
/** Faces that meet at less than this are one: their edge is never seen. */
const FLAT_ANGLE = 0.2;

interface Edge {
  readonly from: number;
  readonly to: number;
  readonly faces: number[];
}

/**
 * The edges of a mesh as quads that a shader widens to lines: each of the four corners of a quad has both ends of its edge
 * (`start`, `end`), the normals of the two faces that meet there (`left`, `right`), and `corner`: where along (0 or 1), on which
 * side (−1 or 1), and whether it is a crease (1), which is drawn also inside the silhouette. `userData.closed` tells whether
 * every edge has two faces, `userData.starts` and `userData.ends` which vertex of the solid each corner's `start` and `end` is.
 */
export function edgeQuads(solid: BufferGeometry): BufferGeometry {
  const { places, vertices, triangles } = welded(solid);
  const normals = triangles.map((corners) => faceNormal(corners.map((i) => places[i]!)));
  const edges = [...edgesOf(triangles)];
  const seen: {
    readonly edge: Edge;
    readonly left: Vector3;
    readonly right: Vector3;
    readonly crease: number;
  }[] = [];
  for (const edge of edges) {
    const [left, right] = edge.faces.map((face) => normals[face]!);
    if (!left) continue;
    const other = right ?? left.clone().negate();
    const angle = (left.angleTo(other) * 180) / Math.PI;
    if (edge.faces.length === 2 && angle < FLAT_ANGLE) continue;
    const crease = edge.faces.length > 2 || angle > CREASE_ANGLE ? 1 : 0;
    seen.push({ edge, left, right: other, crease });
  }
  const count = seen.length * 4;
  const start = new Float32Array(count * 3);
  const end = new Float32Array(count * 3);
  const leftNormals = new Float32Array(count * 3);
  const rightNormals = new Float32Array(count * 3);
  const corner = new Float32Array(count * 3);
  const starts = new Uint32Array(count);
  const ends = new Uint32Array(count);
  const indices: number[] = [];
  seen.forEach(({ edge, left, right, crease }, i) => {
    for (let k = 0; k < 4; k++) {
      const at = (i * 4 + k) * 3;
      places[edge.from]!.toArray(start, at);
      places[edge.to]!.toArray(end, at);
      starts[i * 4 + k] = vertices[edge.from]!;
      ends[i * 4 + k] = vertices[edge.to]!;
      left.toArray(leftNormals, at);
      right.toArray(rightNormals, at);
      corner.set([k >> 1, k % 2 === 0 ? -1 : 1, crease], at);
    }
    const first = i * 4;
    indices.push(first, first + 1, first + 2, first + 2, first + 1, first + 3);
  });
  const quads = new BufferGeometry();
  quads.setAttribute('position', new BufferAttribute(start, 3));
  quads.setAttribute('end', new BufferAttribute(end, 3));
  quads.setAttribute('left', new BufferAttribute(leftNormals, 3));
  quads.setAttribute('right', new BufferAttribute(rightNormals, 3));
  quads.setAttribute('corner', new BufferAttribute(corner, 3));
  quads.setIndex(indices);
  quads.userData = { closed: edges.every(({ faces }) => faces.length === 2), starts, ends };
  return quads;
}

/** The ends of all crease edges, two points a line, for what is drawn as plain lines. */
export function creaseLines(quads: BufferGeometry): BufferGeometry {
  const [start, end, corner] = ['position', 'end', 'corner'].map((name) => quads.getAttribute(name));
  const points: Vector3[] = [];
  for (let i = 0; i < corner!.count; i += 4) {
    if (corner!.getZ(i) === 0) continue;
    points.push(new Vector3().fromBufferAttribute(start!, i), new Vector3().fromBufferAttribute(end!, i));
  }
  return new BufferGeometry().setFromPoints(points);
}

/** Vertices at one place made one, the first vertex at each, and the triangles over them; triangles without an area are left out. */
function welded(solid: BufferGeometry): {
  readonly places: readonly Vector3[];
  readonly vertices: readonly number[];
  readonly triangles: readonly (readonly [number, number, number])[];
} {
  const position = solid.getAttribute('position');
  const index = solid.getIndex();
  const places: Vector3[] = [];
  const vertices: number[] = [];
  const known = new Map<string, number>();
  const nameOf = (i: number) => {
    const place = new Vector3().fromBufferAttribute(position, i);
    const key = place.toArray().map(rounded).join(' ');
    let name = known.get(key);
    if (name === undefined) {
      known.set(key, (name = places.length));
      places.push(place);
      vertices.push(i);
    }
    return name;
  };
  const names = Array.from({ length: position.count }, (_, i) => nameOf(i));
  const corners = index ? Array.from(index.array) : names.map((_, i) => i);
  const triangles: (readonly [number, number, number])[] = [];
  for (let i = 0; i + 2 < corners.length; i += 3) {
    const [a, b, c] = [names[corners[i]!]!, names[corners[i + 1]!]!, names[corners[i + 2]!]!];
    if (a !== b && b !== c && c !== a) triangles.push([a, b, c]);
  }
  return { places, vertices, triangles };
}

/** Places nearer than this, in metres, are one; zero has one sign. */
function rounded(value: number): number {
  return Math.round(value * 1e5) + 0;
}

function edgesOf(triangles: readonly (readonly [number, number, number])[]): Iterable<Edge> {
  const edges = new Map<number, Edge>();
  triangles.forEach((triangle, face) => {
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangle[k]!, triangle[(k + 1) % 3]!];
      const [from, to] = a < b ? [a, b] : [b, a];
      const key = from * 0x4000000 + to;
      const edge = edges.get(key);
      if (edge) edge.faces.push(face);
      else edges.set(key, { from, to, faces: [face] });
    }
  });
  return edges.values();
}

function faceNormal([a, b, c]: readonly Vector3[]): Vector3 {
  return b!.clone().sub(a!).cross(c!.clone().sub(a!)).normalize();
}
