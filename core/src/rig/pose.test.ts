import fc from 'fast-check';
import { TURN_ORDERS, type Vec3 } from '../project';
import { anglesNear, spaceAxes, translateOf, turnedAngles, turnOf } from './index';

const angle = fc.double({ min: -700, max: 700, noNaN: true });
const angles = fc.tuple(angle, angle, angle) as unknown as fc.Arbitrary<Vec3>;
const order = fc.constantFrom(...TURN_ORDERS);
const farthest = (a: ArrayLike<number>, b: ArrayLike<number>) =>
  Math.max(...Array.from(a, (v, i) => Math.abs(v - b[i]!)));

describe('angles of a turn', () => {
  it('give back the turn, near where they were', () => {
    fc.assert(
      fc.property(order, angles, angles, (o, a, near) => {
        const turn = turnOf(o, a);
        expect(farthest(turnOf(o, anglesNear(o, turn, near)), turn)).toBeLessThan(1e-6);
        expect(farthest(anglesNear(o, turn, a), a)).toBeLessThan(
          1e-5 +
            (Math.abs(Math.abs(Math.sin((a['XYZ'.indexOf(o[1]!)]! * Math.PI) / 180)) - 1) < 1e-6 ? 720 : 0),
        );
      }),
    );
  });

  it('give back the turn where the middle axis stands at 90°', () => {
    fc.assert(
      fc.property(order, angle, angle, fc.constantFrom(90, -90, 270), (o, a, c, middle) => {
        const wanted: [number, number, number] = [0, 0, 0];
        wanted['XYZ'.indexOf(o[0]!)] = a;
        wanted['XYZ'.indexOf(o[1]!)] = middle;
        wanted['XYZ'.indexOf(o[2]!)] = c;
        const turn = turnOf(o, wanted);
        expect(farthest(turnOf(o, anglesNear(o, turn, [10, 20, 30])), turn)).toBeLessThan(1e-9);
      }),
    );
  });
});

describe('turning by hand', () => {
  const parent = Float64Array.of(0, 0, -2, 0, 0, 1, 0, 0, 3, 0, 0, 0, 5, 5, 5, 1);

  it('about an axis that alone is turned adds the angle, over whole revolutions', () => {
    expect(turnedAngles('own', 1, 400, 'XYZ', [0, 350, 0], parent)).toEqual([0, 750, 0]);
  });

  it('turns the own axes about one of them, which stays', () => {
    fc.assert(
      fc.property(
        order,
        angles,
        fc.integer({ min: 0, max: 2 }),
        fc.double({ min: -170, max: 170, noNaN: true }),
        (o, a, axis, by) => {
          for (const space of ['own', 'parent', 'world'] as const) {
            const before = spaceAxes(space, parent, o, a);
            const after = turnOf(o, turnedAngles(space, axis, by, o, a, parent));
            const old = turnOf(o, a);
            const cosine = Array.from(old).reduce((sum, v, i) => sum + v * after[i]!, 0);
            expect(Math.abs((cosine - 1) / 2 - Math.cos((by * Math.PI) / 180))).toBeLessThan(1e-6);
            expect(before).toHaveLength(9);
          }
        },
      ),
    );
  });

  it('a shift in the world is what the parent makes of the translate it gives', () => {
    fc.assert(
      fc.property(angles, (shift) => {
        const [x, y, z] = translateOf(shift, parent);
        const back = [0, 1, 2].map((row) => parent[row]! * x + parent[4 + row]! * y + parent[8 + row]! * z);
        expect(farthest(back, shift)).toBeLessThan(1e-9);
      }),
    );
  });
});
