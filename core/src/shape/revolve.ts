import { MeshBuilder, type TriangleMesh } from './mesh';

/**
 * Turns a profile of `[radius, height]` points, from bottom to top on the outside, about +Y. Segments that
 * bend by less than 40° at a point share a rounded normal there; others meet in an edge.
 */
export function revolve(profile: readonly (readonly [number, number])[], segments = 32): TriangleMesh {
  const mesh = new MeshBuilder();
  const normals = segmentNormals(profile);
  for (let i = 0; i + 1 < profile.length; i++) {
    const [r0, y0] = profile[i]!;
    const [r1, y1] = profile[i + 1]!;
    const low = blended(normals, i - 1, i);
    const high = blended(normals, i + 1, i);
    for (let s = 0; s < segments; s++) {
      const [c0, s0] = direction(s / segments);
      const [c1, s1] = direction((s + 1) / segments);
      const points: [number, number, number][] = [
        [r0 * c0, y0, r0 * s0],
        [r1 * c0, y1, r1 * s0],
        [r1 * c1, y1, r1 * s1],
        [r0 * c1, y0, r0 * s1],
      ];
      const around: [number, number, number][] = [
        [low[0] * c0, low[1], low[0] * s0],
        [high[0] * c0, high[1], high[0] * s0],
        [high[0] * c1, high[1], high[0] * s1],
        [low[0] * c1, low[1], low[0] * s1],
      ];
      const kept = r0 === 0 ? [0, 1, 2] : r1 === 0 ? [0, 1, 3] : [0, 1, 2, 3];
      if (r0 === 0 && r1 === 0) continue;
      mesh.smooth(
        kept.map((k) => points[k]!),
        kept.map((k) => around[k]!),
      );
    }
  }
  return mesh;
}

/** Turns a profile about +Y whichever way it runs: what it encloses lies inside, and the faces look outwards. */
export function lathe(profile: readonly (readonly [number, number])[]): TriangleMesh {
  return revolve(enclosed(profile) < 0 ? [...profile].reverse() : profile);
}

/** What a profile encloses about the axis, over π: the sum of its truncated cones, negative where it runs downwards on the outside. */
function enclosed(profile: readonly (readonly [number, number])[]): number {
  return profile.slice(1).reduce((sum, [r1, y1], i) => {
    const [r0, y0] = profile[i]!;
    return sum + ((r0 * r0 + r0 * r1 + r1 * r1) * (y1 - y0)) / 3;
  }, 0);
}

function direction(share: number): [number, number] {
  return [Math.cos(2 * Math.PI * share), Math.sin(2 * Math.PI * share)];
}

function segmentNormals(profile: readonly (readonly [number, number])[]): [number, number][] {
  return profile.slice(1).map(([r1, y1], i) => {
    const [r0, y0] = profile[i]!;
    const length = Math.hypot(r1 - r0, y1 - y0) || 1;
    return [(y1 - y0) / length, -(r1 - r0) / length];
  });
}

const SHARP = Math.cos((40 * Math.PI) / 180);

function blended(normals: readonly [number, number][], neighbour: number, own: number): [number, number] {
  const a = normals[own]!;
  const b = normals[neighbour];
  if (!b || a[0] * b[0] + a[1] * b[1] < SHARP) return a;
  const length = Math.hypot(a[0] + b[0], a[1] + b[1]);
  return [(a[0] + b[0]) / length, (a[1] + b[1]) / length];
}
