import fc from 'fast-check';
import { CAM_LAWS, type LawLeg } from '../../project';
import { differenceOf, expectClose } from '../../../testing/rates';
import { camLaw } from './index';

function peak(law: string, order: number): number {
  const rates = camLaw({ kind: 'law', law: law as LawLeg['law'] }).rates;
  let most = 0;
  for (let i = 0; i <= 20000; i++) most = Math.max(most, Math.abs(rates(i / 20000)[order] ?? 0));
  return most;
}

describe('cam laws', () => {
  it.each(CAM_LAWS.map((law) => ({ law })))('$law rises from 0 to 1 and never falls', ({ law }) => {
    const { value, rates } = camLaw({ kind: 'law', law });
    expectClose(value(0), 0, 1e-15);
    expectClose(value(1), 1, 1e-14);
    for (let i = 0; i <= 500; i++) expect(rates(i / 500)[1]).toBeGreaterThanOrEqual(-1e-12);
  });

  it.each(CAM_LAWS.map((law) => ({ law })))('$law has exact rates', ({ law }) => {
    const { rates, breaks } = camLaw({ kind: 'law', law });
    for (let i = 1; i < 80; i++) {
      const tau = i / 80.3;
      if (breaks.some((at) => Math.abs(at - tau) < 2e-4)) continue;
      const [, d1, d2, d3] = rates(tau);
      const [n1, n2, n3] = differenceOf(rates, tau, 1e-4);
      expectClose(d1, n1, 1e-8);
      expectClose(d2, n2, 1e-7);
      expectClose(d3, n3, 1e-6);
    }
  });

  // Peak factors as cam textbooks tabulate them (Norton, Cam Design and Manufacturing Handbook, ch. 2 and 3).
  it.each([
    ['harmonic', 1, Math.PI / 2],
    ['harmonic', 2, Math.PI ** 2 / 2],
    ['cycloidal', 1, 2],
    ['cycloidal', 2, 2 * Math.PI],
    ['poly-345', 1, 1.875],
    ['poly-345', 2, 5.7735],
    ['poly-4567', 1, 2.1875],
    ['poly-4567', 2, 7.5132],
    ['modified-sine', 1, 1.7596],
    ['modified-sine', 2, 5.528],
    ['modified-trapezoid', 1, 2],
    ['modified-trapezoid', 2, 4.888],
  ])('%s has the tabulated peak of derivative %d', (law, order, expected) => {
    expectClose(peak(law, order), expected, 1e-4);
  });

  it('cruises a trapezoid at V = 1/(1 − (a+d)/2), whatever the ramps', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        (accelerate, decelerate, smoothing) => {
          for (const law of ['trapezoid', 's-curve'] as const) {
            const { value, rates } = camLaw({ kind: 'law', law, accelerate, decelerate, smoothing });
            const speed = 1 / (1 - (accelerate + decelerate) / 2);
            const middle = (accelerate + 1 - decelerate) / 2;
            expectClose(rates(middle)[1], speed, 1e-9);
            expectClose(value(accelerate), (speed * accelerate) / 2, 1e-9);
            expectClose(value(1), 1, 1e-12);
          }
        },
      ),
    );
  });

  it('starts at full speed where a ramp has no length', () => {
    const { rates } = camLaw({ kind: 'law', law: 'trapezoid', accelerate: 0, decelerate: 0 });
    expect(rates(0)).toEqual([0, 1, 0, 0]);
    expect(rates(1, true)).toEqual([1, 1, 0, 0]);
  });

  it('shapes an s-curve ramp as a triangle at smoothing 1 and nearly as a step at smoothing near 0', () => {
    const triangle = camLaw({ kind: 'law', law: 's-curve', accelerate: 0.4, decelerate: 0.4, smoothing: 1 });
    const step = camLaw({ kind: 'law', law: 'trapezoid', accelerate: 0.4, decelerate: 0.4 });
    const peakAcceleration = 1 / 0.6 / 0.4;
    expectClose(step.rates(0.1)[2], peakAcceleration, 1e-12);
    expectClose(triangle.rates(0.2)[2], 2 * peakAcceleration, 1e-12);
    const almost = camLaw({ kind: 'law', law: 's-curve', accelerate: 0.4, decelerate: 0.4, smoothing: 1e-6 });
    expectClose(almost.value(0.17), step.value(0.17), 1e-6);
  });
});
