import fc from 'fast-check';
import { CHANNEL, key, curveProject, sample } from '../../testing/curve';
import { deepFreeze, programOf, slotOf, testProject, valueAt } from '../../testing/project';
import { differenceOf, expectClose } from '../../testing/rates';
import { bezierValue, solveBezierTime } from './bezier';

const reach = fc.double({ min: 0.001, max: 0.99, noNaN: true });
const share = fc.double({ min: 0, max: 1, noNaN: true });

/** The Bernstein form of time, which rounds nothing away near either end. */
function bezierTime(a: number, b: number, u: number): number {
  return bezierValue(a, b, 1, u);
}

describe('solving a Bézier for time', () => {
  it('finds the parameter to the last bits for any reach', () => {
    fc.assert(
      fc.property(reach, reach, share, (r0, r1, x) => {
        const [a, b] = [r0, 1 - r1];
        const u = solveBezierTime(a, b, x);
        let low = 0;
        let high = 1;
        for (let i = 0; i < 120; i++) {
          const middle = (low + high) / 2;
          if (bezierTime(a, b, middle) < x) low = middle;
          else high = middle;
        }
        expect(Math.abs(bezierTime(a, b, u) - x)).toBeLessThanOrEqual(1e-15);
        expect(Math.abs(u - low)).toBeLessThanOrEqual(1e-13);
      }),
      { numRuns: 5000 },
    );
  });

  it('rises with time', () => {
    fc.assert(
      fc.property(reach, reach, share, share, (r0, r1, x, y) => {
        const [low, high] = x < y ? [x, y] : [y, x];
        expect(solveBezierTime(r0, 1 - r1, low)).toBeLessThanOrEqual(
          solveBezierTime(r0, 1 - r1, high) + 1e-15,
        );
      }),
    );
  });
});

describe('a curve leg', () => {
  it('is the Hermite cubic where both reaches are a third', () => {
    const keys = [
      key(0, 1, { out: { mode: 'set', slope: 0.5 } }),
      key(10, 3, { in: { mode: 'set', slope: -0.25 } }),
    ];
    for (let f = 0; f <= 10; f += 0.5) {
      const t = f / 10;
      const hermite =
        (2 * t ** 3 - 3 * t ** 2 + 1) * 1 +
        (t ** 3 - 2 * t ** 2 + t) * 10 * 0.5 +
        (-2 * t ** 3 + 3 * t ** 2) * 3 +
        (t ** 3 - t ** 2) * 10 * -0.25;
      expectClose(sample(keys, f), hermite, 1e-14);
    }
  });

  it('passes through its Bézier points in parametric form, reaches clamped', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 2, noNaN: true }),
        fc.double({ min: -1, max: 2, noNaN: true }),
        share,
        (r0, r1, u) => {
          const keys = [
            key(10, 2, { out: { mode: 'set', slope: 0.7, reach: r0 } }),
            key(34, -1, { in: { mode: 'set', slope: 0.3, reach: r1 } }),
          ];
          const [c0, c1] = [r0, r1].map((r) => Math.min(0.99, Math.max(0.001, r))) as [number, number];
          const frame = 10 + 24 * bezierTime(c0, 1 - c1, u);
          const expected = 2 + bezierValue(0.7 * c0 * 24, -3 - 0.3 * c1 * 24, -3, u);
          expectClose(sample(keys, frame), expected, 2e-12);
        },
      ),
    );
  });

  it('is straight between linear sides whatever their reach', () => {
    const keys = [
      key(0, 0, { out: { mode: 'linear', reach: 0.9 } }),
      key(10, 5, { in: { mode: 'linear', reach: 0.1 } }),
    ];
    expectClose(sample(keys, 3.7), 1.85, 1e-15);
  });
});

describe('the sides of a key', () => {
  it('smooth has the slope from neighbour to neighbour', () => {
    const program = programOf(curveProject([key(0, 0), key(10, 4), key(30, 6)]));
    expectClose(program.channelRates(slotOf(program, CHANNEL), 10)[1], (6 / 30) * 24, 1e-13);
  });

  it('bounded follows Fritsch and Butland between unequal legs', () => {
    const keys = [key(0, 0), key(10, 4, { in: { mode: 'bounded' }, out: { mode: 'bounded' } }), key(30, 6)];
    const program = programOf(curveProject(keys));
    const [d0, d1, h0, h1] = [0.4, 0.1, 10, 20];
    const [w1, w2] = [2 * h1 + h0, h1 + 2 * h0];
    expectClose(
      program.channelRates(slotOf(program, CHANNEL), 10)[1] / 24,
      (w1 + w2) / (w1 / d0 + w2 / d1),
      1e-13,
    );
  });

  it('never leaves the range of its keys while bounded, flat or linear, whatever the reach', () => {
    const side = fc.record({
      mode: fc.constantFrom('bounded', 'flat', 'linear'),
      reach: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    const anyKey = fc.record({
      gap: fc.double({ min: 0.5, max: 40, noNaN: true }),
      value: fc.double({ min: -5, max: 5, noNaN: true }),
      in: side,
      out: side,
    });
    fc.assert(
      fc.property(fc.array(anyKey, { minLength: 2, maxLength: 6 }), share, (list, at) => {
        let frame = 0;
        const keys = list.map(({ gap, ...rest }) => ({ ...rest, frame: (frame += gap) }));
        const leg = Math.min(keys.length - 2, Math.floor(at * (keys.length - 1)));
        const [a, b] = [keys[leg]!, keys[leg + 1]!];
        const value = sample(keys, a.frame + (b.frame - a.frame) * ((at * (keys.length - 1)) % 1));
        const slack = 1e-9;
        expect(value).toBeGreaterThanOrEqual(Math.min(a.value, b.value) - slack);
        expect(value).toBeLessThanOrEqual(Math.max(a.value, b.value) + slack);
      }),
    );
  });

  it('takes the slope of a law leg across the key, and 0 across a hold or a vertical one', () => {
    const slopeAt10 = (leg: object) => {
      const program = programOf(curveProject([key(0, 0, { leg }), key(10, 4), key(20, 5)]));
      return program.channelRates(slotOf(program, CHANNEL), 10)[1] / 24;
    };
    expectClose(slopeAt10({ kind: 'ease', family: 'quad', slow: 'start' }), (2 * 4) / 10, 1e-13);
    expect(slopeAt10({ kind: 'hold' })).toBe(0);
    expect(slopeAt10({ kind: 'ease', family: 'circle', slow: 'start' })).toBe(0);
    const t = 10 / 24;
    expectClose(slopeAt10({ kind: 'ballistic' }), (4 / t - (9.81 * t) / 2) / 24, 1e-13);
  });

  it('goes evenly through the seam of a loop and carry', () => {
    const keys = [key(0, 0), key(10, 80), key(30, 360)];
    const more = { after: { mode: 'loop-carry' } };
    const program = programOf(curveProject(keys, more));
    const slot = slotOf(program, CHANNEL);
    const expected = ((80 + 360 - 80) / (40 - 10)) * 24;
    expectClose(program.channelRates(slot, 30)[1], expected, 1e-12);
    expectClose(program.channelRates(slot, 0)[1], expected, 1e-12);
  });

  it('is flat at the seam of a loop whose ends differ, and at ends that hold', () => {
    const rateAt0 = (last: number, more: object) => {
      const program = programOf(curveProject([key(0, 1), key(10, 3), key(30, last)], { ...more }));
      return program.channelRates(slotOf(program, CHANNEL), 0)[1];
    };
    expect(rateAt0(2, { after: { mode: 'loop' } })).toBe(0);
    expectClose(rateAt0(1, { after: { mode: 'loop' } }), 0 * 24, 1e-12);
    expect(rateAt0(1, {})).toBe(0);
    expectClose(rateAt0(1, { before: { mode: 'run-on' } }), (2 / 10) * 24, 1e-12);
  });

  it("gives the last key the pinned key's slope", () => {
    const keys = [key(0, 0), key(10, 1, { out: { mode: 'set', slope: 7 } }), key(20, 3), key(30, 1)];
    const program = programOf(curveProject(keys, { after: { mode: 'loop', pin: 10 } }));
    expectClose(program.channelRates(slotOf(program, CHANNEL), 30)[1], 7 * 24, 1e-12);
    const before = program.channelRates(slotOf(program, CHANNEL), 30 - 1e-9)[1];
    expectClose(before, 7 * 24, 1e-6);
  });
});

describe('rates', () => {
  const legs = [
    { kind: 'curve' },
    { kind: 'ease', family: 'elastic', slow: 'end' },
    { kind: 'law', law: 's-curve' },
    { kind: 'ballistic' },
    { kind: 'hold' },
  ];
  it.each(legs.map((leg) => ({ leg, name: leg.kind })))(
    'of a $name leg are its derivatives in seconds',
    ({ leg }) => {
      const keys = [
        key(0, 0, { leg, out: { mode: 'set', slope: 0.2, reach: 0.6 } }),
        key(24, 3, { in: { mode: 'set', slope: -0.1, reach: 0.8 } }),
      ];
      const program = programOf(curveProject(keys));
      const slot = slotOf(program, CHANNEL);
      const inSeconds = (s: number) => program.channelRates(slot, s * 24);
      for (const s of [0.05, 0.31, 0.5, 0.77]) {
        const [, v, a, j] = inSeconds(s);
        const [n1, n2, n3] = differenceOf(inSeconds, s, 1e-4);
        expectClose(v, n1, 1e-6);
        expectClose(a, n2, 1e-6);
        expectClose(j, n3, 1e-5);
      }
    },
  );

  it('fall with gravity, whatever the frame rate', () => {
    const falling = testProject({ rate: { frames: 30000, per: 1001 } }, [
      { channel: CHANNEL, keys: [key(0, 5, { leg: { kind: 'ballistic' } }), key(30, 0)] },
    ]);
    const program = programOf(falling);
    expectClose(program.channelRates(slotOf(program, CHANNEL), 12)[2], -9.81, 1e-12);
  });
});

describe('compiling', () => {
  it('changes nothing that it is given', () => {
    expect(() => valueAt(deepFreeze(curveProject([key(0, 0), key(9, 2)])), CHANNEL, 3)).not.toThrow();
  });
});
