import { shapeMesh, type TriangleMesh } from './index';
import { expectClose } from '../../testing/rates';

/** Volume by the divergence theorem: only right for a closed mesh wound outwards. */
function volume({ positions: p, indices }: TriangleMesh): number {
  let sum = 0;
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [indices[i]! * 3, indices[i + 1]! * 3, indices[i + 2]! * 3] as [number, number, number];
    sum +=
      (p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) +
        p[a + 1]! * (p[b + 2]! * p[c]! - p[b]! * p[c + 2]!) +
        p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!)) /
      6;
  }
  return sum;
}

describe('shapes', () => {
  it('are closed and wound outwards, with the volume of the solid', () => {
    expectClose(volume(shapeMesh({ shape: 'box', size: [1, 2, 3] })), 6, 1e-12);
    expectClose(volume(shapeMesh({ shape: 'cylinder', radius: 1, height: 2 })), 2 * Math.PI, 0.01);
    expectClose(volume(shapeMesh({ shape: 'cylinder', radius: 1, topRadius: 0, height: 3 })), Math.PI, 0.01);
    expectClose(volume(shapeMesh({ shape: 'sphere', radius: 1 })), (4 / 3) * Math.PI, 0.02);
    expectClose(volume(shapeMesh({ shape: 'torus', radius: 2, tube: 0.5 })), Math.PI ** 2, 0.02);
    const outline: [number, number][] = [
      [0, 0],
      [2, 0],
      [2, 1],
      [1, 1],
      [1, 2],
      [0, 2],
    ];
    expectClose(volume(shapeMesh({ shape: 'extrude', outline, depth: 0.5 })), 1.5, 1e-12);
    expectClose(
      volume(shapeMesh({ shape: 'extrude', outline: [...outline].reverse(), depth: 0.5 })),
      1.5,
      1e-12,
    );
  });

  it('turned from a profile look outwards whichever way that runs, normals too', () => {
    const profile: [number, number][] = [
      [0, 0],
      [1, 0],
      [0, 3],
    ];
    for (const each of [profile, [...profile].reverse()]) {
      const cone = shapeMesh({ shape: 'lathe', profile: each });
      expectClose(volume(cone), Math.PI, 0.01);
      const outwards = cone.positions.map((place, i) => (i % 3 === 1 ? 0 : place * cone.normals[i]!));
      for (let i = 0; i < outwards.length; i += 3)
        expect(outwards[i]! + outwards[i + 2]!).toBeGreaterThanOrEqual(0);
    }
  });

  it('a gear has its teeth between root and tip, and a bore takes its share away', () => {
    const solid = shapeMesh({ shape: 'gear', teeth: 20, module: 0.1, width: 0.2 });
    const bored = shapeMesh({ shape: 'gear', teeth: 20, module: 0.1, width: 0.2, bore: 0.4 });
    const radii = solid.positions.flatMap((x, i) =>
      i % 3 === 0 ? [Math.hypot(x, solid.positions[i + 2]!)] : [],
    );
    expectClose(Math.max(...radii), 1.1, 1e-12);
    expectClose(volume(solid) - volume(bored), Math.PI * 0.04 * 0.2, 0.02);
  });

  it('normals have length one', () => {
    for (const { normals } of [
      shapeMesh({ shape: 'sphere', radius: 2 }),
      shapeMesh({ shape: 'box', size: [1, 1, 1] }),
    ]) {
      for (let i = 0; i < normals.length; i += 3) {
        expectClose(Math.hypot(normals[i]!, normals[i + 1]!, normals[i + 2]!), 1, 1e-12);
      }
    }
  });
});
