import { BufferAttribute, BufferGeometry, Vector3 } from 'three';

/** Faces that meet at less than 32°, as a cosine, have no line between them unless it is part of the silhouette. */
const CREASE = Math.cos((32 * Math.PI) / 180);
/** Faces that meet at less than 0.2°, as a cosine, are one: their edge is never seen. */
const FLAT = Math.cos((0.2 * Math.PI) / 180);

/**
 * The edges of a mesh as quads that a shader widens to lines: each of the four corners of a quad has both ends of its edge
 * (`start`, `end`), the normals of the two faces that meet there (`left`, `right`), and `corner`: where along (0 or 1), on which
 * side (−1 or 1), and whether it is a crease (1), which is drawn also inside the silhouette. `userData.closed` tells whether
 * every edge has two faces, `userData.starts` and `userData.ends` which vertex of the solid each corner's `start` and `end` is.
 */
export function edgeQuads(solid: BufferGeometry): BufferGeometry {
  const { places, vertices, corners } = welded(solid);
  const normals = faceNormals(places, corners);
  const edges = edgesOf(corners);
  const seen: number[] = [];
  const creases: number[] = [];
  let closed = true;
  for (let edge = 0; edge < edges.count; edge++) {
    const faces = edges.faces[edge]!;
    if (faces !== 2) closed = false;
    const cosine = cosineBetween(normals, edges.left[edge]!, edges.right[edge]!);
    if (faces === 2 && cosine > FLAT) continue;
    seen.push(edge);
    creases.push(faces > 2 || cosine < CREASE ? 1 : 0);
  }
  const count = seen.length * 4;
  const start = new Float32Array(count * 3);
  const end = new Float32Array(count * 3);
  const leftNormals = new Float32Array(count * 3);
  const rightNormals = new Float32Array(count * 3);
  const corner = new Float32Array(count * 3);
  const starts = new Uint32Array(count);
  const ends = new Uint32Array(count);
  const indices = new Uint32Array(seen.length * 6);
  seen.forEach((edge, i) => {
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
    indices.set([first, first + 1, first + 2, first + 2, first + 1, first + 3], i * 6);
  });
  const quads = new BufferGeometry();
  quads.setAttribute('position', new BufferAttribute(start, 3));
  quads.setAttribute('end', new BufferAttribute(end, 3));
  quads.setAttribute('left', new BufferAttribute(leftNormals, 3));
  quads.setAttribute('right', new BufferAttribute(rightNormals, 3));
  quads.setAttribute('corner', new BufferAttribute(corner, 3));
  quads.setIndex(new BufferAttribute(indices, 1));
  quads.userData = { closed, starts, ends };
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

/** Flat lists of numbers, a million of which are no trouble. */
interface Welded {
  /** Places that are apart, three numbers each. */
  readonly places: ArrayLike<number>;
  /** The first vertex of the solid at each place. */
  readonly vertices: ArrayLike<number>;
  /** The places of all triangles' corners; triangles without an area are left out. */
  readonly corners: ArrayLike<number>;
}

/** Vertices at one place made one, and the triangles over them. */
function welded(solid: BufferGeometry): Welded {
  const position = solid.getAttribute('position');
  const { count } = position;
  const places: number[] = [];
  const vertices: number[] = [];
  const nameOf = new Uint32Array(count);
  const table = new HashTable(count);
  for (let i = 0; i < count; i++) {
    const [x, y, z] = [position.getX(i), position.getY(i), position.getZ(i)];
    const name = table.find(
      mixed(rounded(x), rounded(y), rounded(z)),
      (other) =>
        rounded(places[other * 3]!) === rounded(x) &&
        rounded(places[other * 3 + 1]!) === rounded(y) &&
        rounded(places[other * 3 + 2]!) === rounded(z),
      vertices.length,
    );
    nameOf[i] = name;
    if (name < vertices.length) continue;
    places.push(x, y, z);
    vertices.push(i);
  }
  const index = solid.getIndex();
  const length = index ? index.count : count;
  const corners: number[] = [];
  const nameAt = (i: number) => nameOf[index ? index.getX(i) : i]!;
  for (let i = 0; i + 2 < length; i += 3) {
    const [a, b, c] = [nameAt(i), nameAt(i + 1), nameAt(i + 2)];
    if (a !== b && b !== c && c !== a) corners.push(a, b, c);
  }
  return { places, vertices, corners };
}

/** Places nearer than this, in metres, are one; zero has one sign. */
function rounded(value: number): number {
  return Math.round(value * 1e5) + 0;
}

/** Edges by number: their two ends, how many faces meet at each, and the first two of these (−1 where there is no second). */
interface Edges {
  readonly count: number;
  readonly from: readonly number[];
  readonly to: readonly number[];
  readonly faces: readonly number[];
  readonly left: readonly number[];
  readonly right: readonly number[];
}

function edgesOf(corners: ArrayLike<number>): Edges {
  const [from, to, faces, left, right]: number[][] = [[], [], [], [], []];
  const table = new HashTable(corners.length);
  for (let i = 0; i < corners.length; i++) {
    const face = Math.floor(i / 3);
    const [p, q] = [corners[i]!, corners[i % 3 === 2 ? i - 2 : i + 1]!];
    const [a, b] = p < q ? [p, q] : [q, p];
    const edge = table.find(mixed(a, b, 0), (other) => from![other] === a && to![other] === b, from!.length);
    if (edge === from!.length) {
      from!.push(a);
      to!.push(b);
      faces!.push(1);
      left!.push(face);
      right!.push(-1);
    } else {
      if (faces![edge] === 1) right![edge] = face;
      faces![edge]!++;
    }
  }
  return { count: from!.length, from: from!, to: to!, faces: faces!, left: left!, right: right! };
}

/** Unit normals of all triangles, three numbers each. */
function faceNormals(places: ArrayLike<number>, corners: ArrayLike<number>): Float64Array {
  const normals = new Float64Array(corners.length);
  for (let i = 0; i < corners.length; i += 3) {
    const [a, b, c] = [corners[i]! * 3, corners[i + 1]! * 3, corners[i + 2]! * 3];
    const [ux, uy, uz] = [0, 1, 2].map((row) => places[b + row]! - places[a + row]!) as [
      number,
      number,
      number,
    ];
    const [vx, vy, vz] = [0, 1, 2].map((row) => places[c + row]! - places[a + row]!) as [
      number,
      number,
      number,
    ];
    const normal = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const;
    const length = Math.hypot(...normal) || 1;
    for (let row = 0; row < 3; row++) normals[i + row] = normal[row]! / length;
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
