import fc from 'fast-check';
import { bareKey, withPackedKeys } from '@kaizen/core';
import { FrameCounts } from './frame-counts';

const keyed = (frames: readonly number[]) => ({ keys: frames.map((frame) => bareKey(frame, 1)) });
const packed = (frames: readonly number[]) =>
  withPackedKeys({ keys: null }, Float64Array.from(frames.flatMap((frame) => [frame, 1])));

describe('frames with keys', () => {
  it('are those of all curves that were counted and not taken out again, each once, rising', () => {
    const frame = fc.oneof(
      fc.integer({ min: -400, max: 400 }),
      fc.integer({ min: -3_000_000, max: 3_000_000 }),
      fc.double({ min: -400, max: 400, noNaN: true }),
    );
    const curve = fc.record({
      frames: fc.uniqueArray(frame, { maxLength: 12 }),
      isPacked: fc.boolean(),
      stays: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(curve, { maxLength: 12 }), (curves) => {
        const counts = new FrameCounts();
        const made = curves.map(({ frames, isPacked }) => (isPacked ? packed(frames) : keyed(frames)));
        for (const each of made) counts.add(each, 1);
        for (const [i, { stays }] of curves.entries()) if (!stays) counts.add(made[i]!, -1);
        const left = new Set(
          curves.flatMap(({ frames, stays }) => (stays ? frames : [])).map((at) => at + 0),
        );
        expect([...counts.frames()]).toEqual([...left].sort((a, b) => a - b));
      }),
    );
  });

  it('take no more room for keys that lie far apart', () => {
    const counts = new FrameCounts();
    counts.add(keyed([-1e15, 0, 1e15]), 1);
    expect([...counts.frames()]).toEqual([-1e15, 0, 1e15]);
  });
});
