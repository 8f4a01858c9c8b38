import { limitBand } from './limit-band';

describe('the band of a limit', () => {
  it('of a value has two ends, or one that is open', () => {
    expect(limitBand(0, { min: -1, max: 2 })).toEqual({ low: -1, high: 2 });
    expect(limitBand(0, { min: 0 })).toEqual({ low: 0, high: Infinity });
    expect(limitBand(0, { max: 3, min: null })).toEqual({ low: -Infinity, high: 3 });
    expect(limitBand(0, { speed: 4 })).toBeNull();
  });

  it('of a rate lies on both sides of rest', () => {
    const limits = { speed: 1.5, acceleration: 0.4, jerk: null };
    expect(limitBand(1, limits)).toEqual({ low: -1.5, high: 1.5 });
    expect(limitBand(2, limits)).toEqual({ low: -0.4, high: 0.4 });
    expect(limitBand(3, limits)).toBeNull();
    expect(limitBand(1, undefined)).toBeNull();
  });
});
