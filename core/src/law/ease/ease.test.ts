import * as d3 from 'd3-ease';
import fc from 'fast-check';
import { EASE_FAMILIES, type EaseLeg, type EaseSlow } from '../../project';
import { differenceOf, expectClose } from '../../../testing/rates';
import { easeLaw } from './index';

const D3_NAMES: Readonly<Record<string, string>> = {
  quart: 'Poly',
  quint: 'Poly',
  cubic: 'Cubic',
  quad: 'Quad',
  sine: 'Sin',
};
const SUFFIX: Readonly<Record<EaseSlow, string>> = { start: 'In', end: 'Out', both: 'InOut' };

function d3Ease(leg: EaseLeg): (t: number) => number {
  const all = d3 as unknown as Record<
    string,
    ((t: number) => number) & Record<string, (...n: number[]) => (t: number) => number>
  >;
  const family = D3_NAMES[leg.family] ?? leg.family.charAt(0).toUpperCase() + leg.family.slice(1);
  const ease = all[`ease${family}${SUFFIX[leg.slow]}`]!;
  if (leg.family === 'quart') return ease['exponent']!(4);
  if (leg.family === 'quint') return ease['exponent']!(5);
  if (leg.family === 'back') return ease['overshoot']!(leg.overshoot ?? 1.70158);
  if (leg.family === 'elastic')
    return ease['amplitude']!(leg.amplitude ?? 1)['period' as never] === undefined
      ? ease
      : (
          ease['amplitude']!(leg.amplitude ?? 1) as unknown as {
            period: (p: number) => (t: number) => number;
          }
        ).period(leg.period ?? 0.3);
  return ease;
}

const cases = EASE_FAMILIES.flatMap((family) =>
  (['start', 'end', 'both'] as const).map((slow) => ({ family, slow })),
);

describe('ease legs', () => {
  it.each(cases)('$family slow at $slow equals d3-ease everywhere', ({ family, slow }) => {
    const leg: EaseLeg = { kind: 'ease', family, slow };
    const law = easeLaw(leg);
    const reference = d3Ease(leg);
    for (let i = 0; i <= 997; i++) expectClose(law.value(i / 997), reference(i / 997), 1e-14);
  });

  it('takes overshoot, amplitude and period as d3-ease does', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 4, noNaN: true }),
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 2, noNaN: true }),
        fc.constantFrom<EaseSlow>('start', 'end', 'both'),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (overshoot, amplitude, period, slow, tau) => {
          const back: EaseLeg = { kind: 'ease', family: 'back', slow, overshoot };
          expectClose(easeLaw(back).value(tau), d3Ease(back)(tau), 1e-13);
          const elastic: EaseLeg = { kind: 'ease', family: 'elastic', slow, amplitude, period };
          expectClose(easeLaw(elastic).value(tau), d3Ease(elastic)(tau), 1e-12);
        },
      ),
    );
  });

  it.each(cases)('$family slow at $slow has exact rates', ({ family, slow }) => {
    const law = easeLaw({ kind: 'ease', family, slow });
    const h = 1e-4;
    for (let i = 1; i < 60; i++) {
      const tau = i / 60.37;
      if (law.breaks.some((at) => Math.abs(at - tau) < 2 * h)) continue;
      const [, d1, d2, d3rd] = law.rates(tau);
      const [n1, n2, n3] = differenceOf((x) => law.rates(x), tau, h);
      expectClose(d1, n1, 1e-7);
      expectClose(d2, n2, 1e-6);
      expectClose(d3rd, n3, 1e-5);
    }
  });

  it('reads the piece before a break from the left and after it from the right', () => {
    const law = easeLaw({ kind: 'ease', family: 'bounce', slow: 'end' });
    const contact = 4 / 11;
    expectClose(law.rates(contact, true)[1], 2 * 7.5625 * contact, 1e-12);
    expect(law.rates(contact)[1]).toBeLessThan(0);
  });

  it('is vertical, not a number made up, where a circle ends', () => {
    expect(easeLaw({ kind: 'ease', family: 'circle', slow: 'start' }).rates(1, true)[1]).toBe(Infinity);
  });
});
