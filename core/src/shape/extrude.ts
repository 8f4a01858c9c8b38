import earcut from 'earcut';
import { MeshBuilder, type TriangleMesh } from './mesh';

type Outline = readonly (readonly [number, number])[];

/**
 * Extrudes an outline in x, y (with holes) along Z, centred, `depth` metres deep. Either winding will do.
 */
export function extrude(outline: Outline, depth: number, holes: readonly Outline[] = []): TriangleMesh {
  const mesh = new MeshBuilder();
  const rings = [wound(outline, 1), ...holes.map((hole) => wound(hole, -1))];
  const flat = rings.flat();
  const starts = rings
    .slice(0, -1)
    .reduce<number[]>((list, ring) => [...list, (list.at(-1) ?? 0) + ring.length], []);
  const triangles = earcut(flat.flat(), starts);
  const half = depth / 2;
  for (let i = 0; i < triangles.length; i += 3) {
    const corners = [flat[triangles[i]!]!, flat[triangles[i + 1]!]!, flat[triangles[i + 2]!]!] as const;
    const [a, b, c] = area(corners) > 0 ? corners : [corners[0], corners[2], corners[1]];
    mesh.flat([...a, half], [...b, half], [...c, half]);
    mesh.flat([...c, -half], [...b, -half], [...a, -half]);
  }
  for (const ring of rings) {
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length]!;
      mesh.flat([...a, half], [...a, -half], [...b, -half], [...b, half]);
    });
  }
  return mesh;
}

function area(ring: Outline): number {
  return ring.reduce((sum, [x, y], i) => {
    const [nx, ny] = ring[(i + 1) % ring.length]!;
    return sum + (x * ny - nx * y) / 2;
  }, 0);
}

function wound(ring: Outline, sign: 1 | -1): [number, number][] {
  const points = ring.map(([x, y]): [number, number] => [x, y]);
  return area(points) * sign < 0 ? points.reverse() : points;
}

/** Stands an extrusion along Z up along Y: y becomes −z. */
export function standUp(mesh: TriangleMesh): TriangleMesh {
  const turn = (list: readonly number[]) =>
    list.map((_, i) => (i % 3 === 0 ? list[i]! : i % 3 === 1 ? list[i + 1]! : -list[i - 1]!));
  return { positions: turn(mesh.positions), normals: turn(mesh.normals), indices: mesh.indices };
}
