import { camLaw, easeLaw, lawPeaks } from '.';

describe('peaks of laws, relative to even motion', () => {
  it.each([
    ['harmonic', Math.PI / 2, Math.PI ** 2 / 2],
    ['cycloidal', 2, 2 * Math.PI],
    ['poly-345', 1.875, 5.7735],
    ['poly-4567', 2.1875, 7.5132],
    ['modified-sine', 1.76, 5.528],
    ['modified-trapezoid', 2, 4.888],
    ['trapezoid', 1.5, 4.5],
    ['s-curve', 1.5, 9],
  ] as const)('%s reaches the textbook’s speed and acceleration', (law, speed, acceleration) => {
    const peaks = lawPeaks(camLaw({ kind: 'law', law }));
    expect(peaks.speed).toBeCloseTo(speed, 2);
    expect(peaks.acceleration).toBeCloseTo(acceleration, 2);
  });

  it('a quarter circle stands upright at its end', () => {
    expect(lawPeaks(easeLaw({ kind: 'ease', family: 'circle', slow: 'start' })).speed).toBe(Infinity);
  });
});
