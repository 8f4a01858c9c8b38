import fc from 'fast-check';
import { CHANNEL, LINEAR, key, curveProject, sample } from '../../../testing/curve';
import { programOf, slotOf, testProject, valueAt } from '../../../testing/project';
import { differenceOf, expectClose } from '../../../testing/rates';

describe('treatments', () => {
  const keys = [key(0, 0, LINEAR), key(10, 10, LINEAR)];
  const treated = (frame: number, ...treatments: object[]) => sample(keys, frame, { treatments });

  it('clamp, gain, delay and every, in list order', () => {
    expect(treated(8, { kind: 'clamp', max: 6 })).toBe(6);
    expect(treated(8, { kind: 'gain', factor: 2, about: 5 })).toBe(11);
    expectClose(treated(8, { kind: 'delay', frames: 3 }), 5, 1e-14);
    expectClose(treated(8.9, { kind: 'every', frames: 3, offset: 1 }), 7, 1e-14);
    expectClose(treated(8, { kind: 'delay', frames: 3 }, { kind: 'gain', factor: 2 }), 10, 1e-13);
    expectClose(treated(8, { kind: 'clamp', max: 6, weight: 0.5 }), 7, 1e-14);
    expect(treated(8, { kind: 'clamp', max: 6, muted: true })).toBe(8);
    const weight = { keys: [key(0, 0, LINEAR), key(10, 1, LINEAR)] };
    expectClose(treated(8, { kind: 'gain', factor: 0, weight }), 8 + 0.8 * (0 - 8), 1e-13);
  });

  it('act on the rest value where there are no keys', () => {
    const curve = { channel: 'wagon/custom.throttle', treatments: [{ kind: 'gain', factor: 4 }] };
    expect(valueAt(testProject({}, [curve]), 'wagon/custom.throttle', 3)).toBe(2);
  });

  const noiseAt = (frame: number, more: object = {}) =>
    sample([], frame, { treatments: [{ kind: 'noise', amplitude: 1, period: 7, seed: 12, ...more }] });

  it('noise is zero on its lattice, bounded, and the same every time', () => {
    expect(noiseAt(14)).toBe(0);
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.integer({ min: 1, max: 6 }),
        (frame, octaves) => {
          const value = noiseAt(frame, { octaves });
          expect(Math.abs(value)).toBeLessThanOrEqual(1);
          expect(noiseAt(frame, { octaves })).toBe(value);
        },
      ),
    );
  });

  it('noise of another seed is other noise, and a loop closes', () => {
    expect(noiseAt(3)).not.toBe(noiseAt(3, { seed: 13 }));
    for (const frame of [0.5, 3, 11.25]) {
      expectClose(
        noiseAt(frame, { loop: 48, octaves: 3 }),
        noiseAt(frame + 48, { loop: 48, octaves: 3 }),
        1e-12,
      );
    }
  });

  it('noise has exact rates', () => {
    const program = programOf(
      curveProject([], { treatments: [{ kind: 'noise', amplitude: 2, period: 9, seed: 3, octaves: 3 }] }),
    );
    const slot = slotOf(program, CHANNEL);
    const inSeconds = (s: number) => program.channelRates(slot, s * 24);
    const [, v, a, j] = inSeconds(0.33);
    const [n1, n2, n3] = differenceOf(inSeconds, 0.33, 1e-4);
    expectClose(v, n1, 1e-6);
    expectClose(a, n2, 1e-6);
    expectClose(j, n3, 1e-5);
  });

  it('a muted curve gives the rest value', () => {
    expect(sample(keys, 5, { muted: true })).toBe(0);
  });
});
