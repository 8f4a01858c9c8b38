import fc from 'fast-check';
import { easeExcess, withExcess } from './excess';
import { EASE_FAMILIES, type EaseSlow } from '../../project';

const SLOWS: readonly EaseSlow[] = ['start', 'end', 'both'];

describe('how far an ease goes past its ends', () => {
  it('is a tenth for the usual back, by the extremum of its cubic', () => {
    for (const overshoot of [0.5, 1.70158, 4]) {
      const exact = (4 * overshoot ** 3) / (27 * (overshoot + 1) ** 2);
      for (const slow of ['start', 'end'] as const)
        expect(easeExcess({ kind: 'ease', family: 'back', slow, overshoot })).toBeCloseTo(exact, 10);
      expect(easeExcess({ kind: 'ease', family: 'back', slow: 'both', overshoot })).toBeCloseTo(
        exact / 2,
        10,
      );
    }
    expect(easeExcess({ kind: 'ease', family: 'back', slow: 'end' })).toBeCloseTo(0.1, 5);
  });

  it('is nothing for the families that stay between their ends', () => {
    for (const family of EASE_FAMILIES.filter((each) => each !== 'back' && each !== 'elastic'))
      for (const slow of SLOWS) expect(easeExcess({ kind: 'ease', family, slow })).toBeLessThan(1e-12);
  });

  it('is set as a share, and read back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 3, noNaN: true }), fc.constantFrom(...SLOWS), (share, slow) => {
        const leg = withExcess({ kind: 'ease', family: 'back', slow }, share);
        expect(easeExcess(leg)).toBeCloseTo(share, 8);
      }),
      { numRuns: 20 },
    );
    const spring = { kind: 'ease', family: 'elastic', slow: 'end', period: 0.25 } as const;
    expect(easeExcess(withExcess(spring, 0.8))).toBeCloseTo(0.8, 8);
  });

  it('goes no farther than its parameter may: a spring has at least what an amplitude of 1 gives', () => {
    const spring = { kind: 'ease', family: 'elastic', slow: 'end' } as const;
    expect(withExcess(spring, 0)).toMatchObject({ amplitude: 1 });
    expect(withExcess({ ...spring, family: 'cubic' }, 0.5)).toEqual({ ...spring, family: 'cubic' });
  });
});
