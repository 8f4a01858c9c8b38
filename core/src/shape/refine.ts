import type { TriangleMesh } from './mesh';

/** No mesh is cut into more triangles than this. */
const MOST_TRIANGLES = 200_000;
const MOST_ROUNDS = 12;
/** An edge as one number: its lower vertex times this and the other. */
const EDGE = 2 ** 26;

type Point = readonly [number, number, number];

/**
 * A mesh with its edges halved where `bends` says that one is too long: where its middle would not stay in the middle. Edges are
 * judged by their ends alone, so that neighbours that do not share their vertices are cut alike and nothing opens between them.
 */
export function refineMesh(mesh: TriangleMesh, bends: (a: Point, b: Point) => boolean): TriangleMesh {
  const positions = [...mesh.positions];
  const normals = [...mesh.normals];
  let indices = [...mesh.indices];
  const point = (i: number): Point => [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!];
  const halve = (a: number, b: number): number => {
    const normal: [number, number, number] = [0, 0, 0];
    for (let row = 0; row < 3; row++) {
      positions.push((positions[a * 3 + row]! + positions[b * 3 + row]!) / 2);
      normal[row] = normals[a * 3 + row]! + normals[b * 3 + row]!;
    }
    const length = Math.hypot(...normal) || 1;
    normals.push(normal[0] / length, normal[1] / length, normal[2] / length);
    return positions.length / 3 - 1;
  };
  for (let round = 0; round < MOST_ROUNDS && indices.length / 3 < MOST_TRIANGLES; round++) {
    const middles = new Map<number, number>();
    const middle = (a: number, b: number): number => {
      const [first, second] = a < b ? [a, b] : [b, a];
      const edge = first * EDGE + second;
      let known = middles.get(edge);
      if (known === undefined)
        middles.set(edge, (known = bends(point(first), point(second)) ? halve(first, second) : -1));
      return known;
    };
    const cut: number[] = [];
    for (let i = 0; i < indices.length; i += 3) {
      const [a, b, c] = [indices[i]!, indices[i + 1]!, indices[i + 2]!];
      cut.push(...cutTriangle([a, b, c], [middle(a, b), middle(b, c), middle(c, a)]));
    }
    if (cut.length === indices.length) break;
    indices = cut;
  }
  return { positions, normals, indices };
}

/** The triangles of one whose edges have middles, or −1 where they stay. */
function cutTriangle(
  [a, b, c]: readonly [number, number, number],
  [ab, bc, ca]: readonly [number, number, number],
): readonly number[] {
  const cuts = Number(ab >= 0) + Number(bc >= 0) + Number(ca >= 0);
  if (cuts === 0) return [a, b, c];
  if (cuts === 3) return [a, ab, ca, ab, b, bc, ca, bc, c, ab, bc, ca];
  // Turned so that the first edge is cut, and with two cuts the second too.
  if (ab < 0) return cutTriangle([b, c, a], [bc, ca, ab]);
  if (cuts === 2 && bc < 0) return cutTriangle([c, a, b], [ca, ab, bc]);
  return cuts === 1 ? [a, ab, c, ab, b, c] : [ab, b, bc, a, ab, bc, a, bc, c];
}
