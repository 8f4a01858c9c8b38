import fc from 'fast-check';
import { mat4 } from 'gl-matrix';
import { TURN_ORDERS, type Part, type TurnOrder, type Vec3 } from '../project';
import { programOf, testProject } from '../../testing/project';
import { localMatrix, transformFrame } from './index';

type Spec = {
  translate: Vec3;
  rotate: Vec3;
  scale: Vec3;
  pivot: Vec3;
  anchor: Vec3;
  squash: number;
  axis: 'x' | 'y' | 'z';
  order: TurnOrder;
  frame: 'part' | 'parent';
};
const vec = (min: number, max: number) => {
  const n = fc.double({ min, max, noNaN: true });
  return fc.tuple(n, n, n) as unknown as fc.Arbitrary<Vec3>;
};
const spec: fc.Arbitrary<Spec> = fc.record({
  translate: vec(-5, 5),
  rotate: vec(-800, 800),
  scale: vec(0.2, 3),
  pivot: vec(-2, 2),
  anchor: vec(-2, 2),
  squash: fc.double({ min: -1.2, max: 2, noNaN: true }),
  axis: fc.constantFrom('x', 'y', 'z'),
  order: fc.constantFrom(...TURN_ORDERS),
  frame: fc.constantFrom('part', 'parent'),
});

const identity = () => Float64Array.from(mat4.create()) as unknown as mat4;
function product(...matrices: mat4[]): mat4 {
  return matrices.reduce((a, b) => mat4.multiply(identity(), a, b), identity());
}
const T = (v: readonly number[]) => mat4.translate(identity(), identity(), v);
const S = (v: readonly number[]) => mat4.scale(identity(), identity(), v);

/** Contract §7 written out as a product of matrices. */
function byTheContract(s: Spec): mat4 {
  const turn = { X: mat4.rotateX, Y: mat4.rotateY, Z: mat4.rotateZ };
  const R = product(
    ...[...s.order].map((a) =>
      turn[a as 'X'](identity(), identity(), (s.rotate['XYZ'.indexOf(a)]! * Math.PI) / 180),
    ),
  );
  const k = Math.max(0.05, 1 + s.squash);
  const K = S(['x', 'y', 'z'].map((a) => (a === s.axis ? k : 1 / Math.sqrt(k))));
  const less = s.anchor.map((a, i) => a - s.pivot[i]!);
  const minus = s.pivot.map((v) => -v);
  const c = s.frame === 'part' ? less.map((v, i) => v * s.scale[i]!) : less;
  const Q = product(T(c), K, T(c.map((v) => -v)));
  return s.frame === 'part'
    ? product(T(s.translate), T(s.pivot), R, Q, S(s.scale), T(minus))
    : product(T(s.translate), T(s.pivot), Q, R, S(s.scale), T(minus));
}

function partOf(s: Spec): Part {
  return testProject({
    parts: [
      {
        id: 'a',
        name: 'A',
        kind: 'group',
        pivot: s.pivot,
        turnOrder: s.order,
        squash: { axis: s.axis, anchor: s.anchor, frame: s.frame },
      },
    ],
  }).parts[0]!;
}

describe('the local matrix', () => {
  it('is the product of the contract for every order, pivot and squash', () => {
    fc.assert(
      fc.property(spec, (s) => {
        const out = new Float64Array(16);
        localMatrix(out, transformFrame(partOf(s)), [...s.translate, ...s.rotate, ...s.scale, s.squash], 0);
        Array.from(byTheContract(s) as Iterable<number>).forEach((value, i) =>
          expect(Math.abs(out[i]! - value)).toBeLessThan(1e-11),
        );
      }),
    );
  });

  it('keeps the volume and the contact point under squash', () => {
    fc.assert(
      fc.property(spec, (s) => {
        const plain = { ...s, squash: 0 };
        expect(
          Math.abs(mat4.determinant(byTheContract(s)) / mat4.determinant(byTheContract(plain)) - 1),
        ).toBeLessThan(1e-9);
        const frame = transformFrame(partOf({ ...s, frame: 'part' }));
        const at = (squash: number) => {
          const out = new Float64Array(16);
          localMatrix(out, frame, [...s.translate, ...s.rotate, ...s.scale, squash], 0);
          const [x, y, z] = s.anchor;
          return [0, 1, 2].map(
            (row) => out[row]! * x + out[4 + row]! * y + out[8 + row]! * z + out[12 + row]!,
          );
        };
        at(s.squash).forEach((v, i) => expect(Math.abs(v - at(0)[i]!)).toBeLessThan(1e-10));
      }),
    );
  });

  it('is exact at quarter turns', () => {
    const out = new Float64Array(16);
    localMatrix(out, transformFrame(testProject().parts[0]!), [0, 0, 0, 0, 450, 0, 1, 1, 1, 0], 0);
    expect([...out].map((v) => v + 0)).toEqual([0, 0, -1, 0, 0, 1, 0, 0, 1, 0, 0, 0, 0, 0, 0, 1]);
  });
});

describe('world matrices', () => {
  it('multiply down the parents, whatever the order in the file', () => {
    const parts = [
      { id: 'tip', name: 'Tip', kind: 'group', parent: 'arm', rest: { translate: [2, 0, 0] } },
      { id: 'arm', name: 'Arm', kind: 'group', parent: 'base', rest: { rotate: [0, 0, 90] } },
      { id: 'base', name: 'Base', kind: 'group', rest: { translate: [0, 1, 0] } },
    ];
    const program = programOf(testProject({ parts }));
    const out = program.createOutput();
    program.run(0, out);
    expect([...out.world[0]!.subarray(12, 15)]).toEqual([0, 3, 0]);
  });
});
