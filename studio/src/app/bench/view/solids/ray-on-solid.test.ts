import { Euler, Matrix4, Mesh, Quaternion, Raycaster, Vector3 } from 'three';
import * as fc from 'fast-check';
import { nearestPossible, rayOnSolid } from './ray-on-solid';
import { shapeGeometry } from './solids';

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const place = fc.tuple(between(-3, 3), between(-3, 3), between(-3, 3)).map((at) => new Vector3(...at));

describe('a ray on a solid', () => {
  it('meets it where it does triangle by triangle, however the solid is turned, sized and mirrored', () => {
    const gear = shapeGeometry({ shape: 'gear', teeth: 9, module: 0.2, width: 0.6, bore: 0.3 });
    const placed = fc
      .tuple(place, fc.tuple(between(-3, 3), between(-3, 3), between(-3, 3)), between(0.3, 2), fc.boolean())
      .map(([at, turns, size, mirrored]) =>
        new Matrix4().compose(
          at,
          new Quaternion().setFromEuler(new Euler(...turns)),
          new Vector3(mirrored ? -size : size, size * 1.4, size),
        ),
      );
    let met = 0;
    fc.assert(
      fc.property(placed, place, place, (matrix, from, to) => {
        fc.pre(from.distanceTo(to) > 0.01);
        const mesh = new Mesh(gear);
        mesh.matrixWorld.copy(matrix);
        const caster = new Raycaster(from, to.clone().sub(from).normalize());
        const [expected] = caster.intersectObject(mesh);
        const hit = rayOnSolid(gear, Float64Array.from(matrix.elements), caster.ray);
        expect(hit === null).toBe(expected === undefined);
        if (!hit || !expected) return;
        met++;
        const near = nearestPossible(gear, Float64Array.from(matrix.elements), caster.ray);
        expect(near).toBeLessThanOrEqual(hit.distance + 1e-6);
        expect(hit.point.distanceTo(expected.point)).toBeLessThan(1e-5);
        expect(hit.distance).toBeCloseTo(expected.distance, 5);
      }),
      { numRuns: 400 },
    );
    expect(met).toBeGreaterThan(20);
  });
});
