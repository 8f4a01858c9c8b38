/** Faces that meet at less than 32°, as a cosine, have no line between them unless it is part of the silhouette. */
const CREASE = Math.cos((32 * Math.PI) / 180);
/** Faces that meet at less than 0.2°, as a cosine, are one: their edge is never seen. */
const FLAT = Math.cos((0.2 * Math.PI) / 180);

/**
 * The edges of a mesh as quads that a shader widens to lines: each of the four corners of a quad has both ends of its edge, the unit
 * normals of the two faces that meet there, and `corner`: where along (0 or 1), on which side (−1 or 1), and whether it is a crease
 * (1), which is drawn also inside the silhouette. All have three numbers a corner.
 */
export interface MeshEdges {
  readonly start: Float32Array;
  readonly end: Float32Array;
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly corner: Float32Array;
  /** Which vertex of the mesh each corner's `start` and `end` is. */
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  /** Two triangles a quad. */
  readonly indices: Uint32Array;
  /** Whether every edge has two faces. */
  readonly closed: boolean;
}

/** The edges of a mesh of triangles; `positions` has three numbers a vertex in metres, without `indices` every three are a triangle. */
export function meshEdges(positions: ArrayLike<number>, indices: ArrayLike<number> | null): MeshEdges {
  const mesh = welded(positions, indices);
  const normals = faceNormals(mesh);
  const edges = edgesOf(mesh.corners);
  const seen = new Uint32Array(edges.count);
  const creases = new Uint8Array(edges.count);
  let count = 0;
  let closed = true;
  for (let edge = 0; edge < edges.count; edge++) {
    const faces = edges.faces[edge]!;
    if (faces !== 2) closed = false;
    const cosine = cosineBetween(normals, edges.left[edge]!, edges.right[edge]!);
    if (faces === 2 && cosine > FLAT) continue;
    seen[count] = edge;
    creases[count++] = faces > 2 || cosine < CREASE ? 1 : 0;
  }
  return quadsOf(mesh, normals, edges, seen.subarray(0, count), creases, closed);
}

function quadsOf(
  { places, vertices }: Welded,
  normals: Float64Array,
  edges: Edges,
  seen: Uint32Array,
  creases: Uint8Array,
  closed: boolean,
): MeshEdges {
  const count = seen.length * 4;
  const triples = () => new Float32Array(count * 3);
  const [start, end, leftNormals, rightNormals, corner] = [
    triples(),
    triples(),
    triples(),
    triples(),
    triples(),
  ];
  const starts = new Uint32Array(count);
  const ends = new Uint32Array(count);
  const indices = new Uint32Array(seen.length * 6);
  for (let i = 0; i < seen.length; i++) {
    const edge = seen[i]!;
    const [from, to] = [edges.from[edge]!, edges.to[edge]!];
    const [left, right] = [edges.left[edge]!, edges.right[edge]!];
    for (let k = 0; k < 4; k++) {
      const at = (i * 4 + k) * 3;
      for (let row = 0; row < 3; row++) {
        start[at + row] = places[from * 3 + row]!;
        end[at + row] = places[to * 3 + row]!;
        leftNormals[at + row] = normals[left * 3 + row]!;
        rightNormals[at + row] = right < 0 ? -normals[left * 3 + row]! : normals[right * 3 + row]!;
      }
      corner[at] = k >> 1;
      corner[at + 1] = k % 2 === 0 ? -1 : 1;
      corner[at + 2] = creases[i]!;
      starts[i * 4 + k] = vertices[from]!;
      ends[i * 4 + k] = vertices[to]!;
    }
    const first = i * 4;
    const to6 = i * 6;
    indices[to6] = first;
    indices[to6 + 1] = indices[to6 + 4] = first + 1;
    indices[to6 + 2] = indices[to6 + 3] = first + 2;
    indices[to6 + 5] = first + 3;
  }
  return { start, end, left: leftNormals, right: rightNormals, corner, starts, ends, indices, closed };
}

/** A mesh whose vertices at one place are one. */
interface Welded {
  /** Places that are apart, three numbers each. */
  readonly places: Float64Array;
  /** The first vertex of the mesh at each place. */
  readonly vertices: Uint32Array;
  /** The places of all triangles' corners; triangles without an area are left out. */
  readonly corners: Uint32Array;
}

function welded(positions: ArrayLike<number>, indices: ArrayLike<number> | null): Welded {
  const count = Math.floor(positions.length / 3);
  const places = new Float64Array(count * 3);
  const vertices = new Uint32Array(count);
  const nameOf = new Uint32Array(count);
  const table = new HashTable(count);
  let apart = 0;
  for (let i = 0; i < count; i++) {
    const [x, y, z] = [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!];
    const [atX, atY, atZ] = [rounded(x), rounded(y), rounded(z)];
    const name = table.find(
      mixed(atX, atY, atZ),
      (other) =>
        rounded(places[other * 3]!) === atX &&
        rounded(places[other * 3 + 1]!) === atY &&
        rounded(places[other * 3 + 2]!) === atZ,
      apart,
    );
    nameOf[i] = name;
    if (name < apart) continue;
    places[apart * 3] = x;
    places[apart * 3 + 1] = y;
    places[apart * 3 + 2] = z;
    vertices[apart++] = i;
  }
  const length = indices ? indices.length : count;
  const corners = new Uint32Array(length);
  const nameAt = (i: number) => nameOf[indices ? indices[i]! : i]!;
  let used = 0;
  for (let i = 0; i + 2 < length; i += 3) {
    const [a, b, c] = [nameAt(i), nameAt(i + 1), nameAt(i + 2)];
    if (a === b || b === c || c === a) continue;
    corners[used] = a;
    corners[used + 1] = b;
    corners[used + 2] = c;
    used += 3;
  }
  return { places, vertices, corners: corners.subarray(0, used) };
}

/** Places nearer than this, in metres, are one; zero has one sign. */
function rounded(value: number): number {
  return Math.round(value * 1e5) + 0;
}

/** Edges by number: their two ends, how many faces meet at each, and the first two of these (−1 where there is no second). */
interface Edges {
  readonly count: number;
  readonly from: Uint32Array;
  readonly to: Uint32Array;
  readonly faces: Uint32Array;
  readonly left: Int32Array;
  readonly right: Int32Array;
}

function edgesOf(corners: Uint32Array): Edges {
  const most = corners.length;
  const [from, to, faces] = [new Uint32Array(most), new Uint32Array(most), new Uint32Array(most)];
  const [left, right] = [new Int32Array(most), new Int32Array(most).fill(-1)];
  const table = new HashTable(most);
  let count = 0;
  for (let i = 0; i < most; i++) {
    const face = Math.floor(i / 3);
    const [p, q] = [corners[i]!, corners[i % 3 === 2 ? i - 2 : i + 1]!];
    const [a, b] = p < q ? [p, q] : [q, p];
    const edge = table.find(mixed(a, b, 0), (other) => from[other] === a && to[other] === b, count);
    if (edge === count) {
      from[edge] = a;
      to[edge] = b;
      left[edge] = face;
      count++;
    } else if (faces[edge] === 1) right[edge] = face;
    faces[edge]!++;
  }
  return { count, from, to, faces, left, right };
}

/** Unit normals of all triangles, three numbers each. */
function faceNormals({ places, corners }: Welded): Float64Array {
  const normals = new Float64Array(corners.length);
  for (let i = 0; i < corners.length; i += 3) {
    const [a, b, c] = [corners[i]! * 3, corners[i + 1]! * 3, corners[i + 2]! * 3];
    const ux = places[b]! - places[a]!;
    const uy = places[b + 1]! - places[a + 1]!;
    const uz = places[b + 2]! - places[a + 2]!;
    const vx = places[c]! - places[a]!;
    const vy = places[c + 1]! - places[a + 1]!;
    const vz = places[c + 2]! - places[a + 2]!;
    const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = Math.hypot(x, y, z) || 1;
    normals[i] = x / length;
    normals[i + 1] = y / length;
    normals[i + 2] = z / length;
  }
  return normals;
}

/** The cosine of the angle between two faces' normals; −1 where there is no second face. */
function cosineBetween(normals: Float64Array, left: number, right: number): number {
  if (right < 0) return -1;
  let cosine = 0;
  for (let row = 0; row < 3; row++) cosine += normals[left * 3 + row]! * normals[right * 3 + row]!;
  return cosine;
}

/** Three whole numbers mixed into one of 32 bits. */
function mixed(x: number, y: number, z: number): number {
  let hash = Math.imul(x | 0, 0x9e3779b1) ^ Math.imul(y | 0, 0x85ebca6b) ^ Math.imul(z | 0, 0xc2b2ae35);
  hash ^= hash >>> 15;
  return Math.imul(hash, 0x2c1b3c6d) >>> 0;
}

/** Numbers of things by their hash, with open addressing; a text as the key of each vertex would cost a hundred times as much. */
class HashTable {
  private readonly slots: Int32Array;

  constructor(most: number) {
    this.slots = new Int32Array(2 ** Math.ceil(Math.log2(Math.max(8, most * 2)))).fill(-1);
  }

  /** The number of the thing that is the same; `next`, which it then has, where none is. */
  find(hash: number, isSame: (other: number) => boolean, next: number): number {
    const mask = this.slots.length - 1;
    let at = hash & mask;
    for (let other = this.slots[at]!; other >= 0; other = this.slots[at]!) {
      if (isSame(other)) return other;
      at = (at + 1) & mask;
    }
    return (this.slots[at] = next);
  }
}
