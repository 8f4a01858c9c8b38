import fc from 'fast-check';
import { framesPerSecond, frameToSeconds, lastShownFrame, rateLabel, rateOf, secondsToFrame } from './timing';

describe('rates', () => {
  it('typed as people say them are the exact ones of SMPTE ST 12-1', () => {
    expect([24, 25, 50, 23.976, 23.98, 29.97, 59.94, 119.88].map(rateOf)).toEqual([
      { frames: 24, per: 1 },
      { frames: 25, per: 1 },
      { frames: 50, per: 1 },
      { frames: 24000, per: 1001 },
      { frames: 24000, per: 1001 },
      { frames: 30000, per: 1001 },
      { frames: 60000, per: 1001 },
      { frames: 120000, per: 1001 },
    ]);
    expect(rateOf(12.5)).toEqual({ frames: 12500, per: 1000 });
  });

  it('come out as they were typed, to the digits typed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1000, max: 240_000 }), (thousandths) => {
        const typed = thousandths / 1000;
        expect(Math.abs(framesPerSecond(rateOf(typed)) - typed)).toBeLessThan(0.005);
      }),
    );
    expect([24, 29.97, 12.5].map((rate) => rateLabel(rateOf(rate)))).toEqual([
      '24 fps',
      '29.97 fps',
      '12.50 fps',
    ]);
  });

  it('turn frames into seconds and back', () => {
    expect(frameToSeconds(30_000, { frames: 30000, per: 1001 })).toBe(1001);
    fc.assert(
      fc.property(fc.double({ min: -1e5, max: 1e5, noNaN: true }), (frame) => {
        const rate = { frames: 30000, per: 1001 };
        expect(secondsToFrame(frameToSeconds(frame, rate), rate)).toBeCloseTo(frame, 8);
      }),
    );
  });

  it('a loop’s last frame shows what the first shows, so it is left out', () => {
    expect(lastShownFrame({ start: 0, end: 24, loop: true })).toBe(23);
    expect(lastShownFrame({ start: 0, end: 24, loop: false })).toBe(24);
    expect(lastShownFrame({ start: 3, end: 3, loop: true })).toBe(3);
  });
});
