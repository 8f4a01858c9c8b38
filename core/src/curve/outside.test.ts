import fc from 'fast-check';
import { CHANNEL, LINEAR, key, curveProject, sample } from '../../testing/curve';
import { programOf, slotOf } from '../../testing/project';
import { expectClose } from '../../testing/rates';

describe('outside the keys', () => {
  const keys = [key(10, 1, LINEAR), key(20, 4, LINEAR), key(30, 2, LINEAR)];
  const at = (frame: number, more: object) => sample(keys, frame, { ...more });

  it('holds, runs on, loops, carries and swings', () => {
    expect(at(0, {})).toBe(1);
    expect(at(99, {})).toBe(2);
    expectClose(at(35, { after: { mode: 'run-on' } }), 1, 1e-13);
    expectClose(at(5, { before: { mode: 'run-on' } }), -0.5, 1e-13);
    expectClose(at(55, { after: { mode: 'loop' } }), 2.5, 1e-13);
    expect(at(30, { after: { mode: 'loop' } })).toBe(2);
    expect(at(50, { after: { mode: 'loop' } })).toBe(1);
    expectClose(at(55, { after: { mode: 'loop-carry' } }), 2.5 + 2, 1e-13);
    expectClose(at(35, { after: { mode: 'swing' } }), 3, 1e-13);
    expectClose(at(55, { after: { mode: 'swing' } }), 2.5, 1e-13);
    expectClose(at(5, { before: { mode: 'swing' } }), 2.5, 1e-13);
    expectClose(at(-15, { before: { mode: 'loop-carry' } }), 3 - 2, 1e-13);
  });

  it('stops after a count of cycles with the value it has there', () => {
    expect(at(500, { after: { mode: 'loop', count: 2 } })).toBe(2);
    expect(at(-500, { before: { mode: 'loop', count: 2 } })).toBe(1);
    expect(at(500, { after: { mode: 'loop-carry', count: 3 } })).toBe(5);
    expect(at(-500, { before: { mode: 'loop-carry', count: 3 } })).toBe(-2);
    expectClose(at(500, { after: { mode: 'loop', count: 0.25 } }), 2.5, 1e-13);
    expectClose(at(500, { after: { mode: 'swing', count: 1.25 } }), 2.5, 1e-13);
    expectClose(at(-500, { before: { mode: 'swing', count: 1.25 } }), 3, 1e-13);
    expect(at(500, { after: { mode: 'swing', count: 1 } })).toBe(1);
    expect(at(500, { after: { mode: 'loop', count: 0 } })).toBe(2);
  });

  it('repeats only what lies beyond the pin', () => {
    expectClose(at(35, { after: { mode: 'loop', pin: 20 } }), 3, 1e-13);
    expectClose(at(35, { after: { mode: 'loop-carry', pin: 20 } }), 1, 1e-13);
    expectClose(at(5, { before: { mode: 'loop', pin: 20 } }), 2.5, 1e-13);
    expectClose(at(35, { after: { mode: 'swing', pin: 20 } }), 3, 1e-13);
    expectClose(at(45, { after: { mode: 'swing', pin: 20 } }), 3, 1e-13);
  });

  it('repeats exactly for ever', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 19 }), fc.integer({ min: 2, max: 1000 }), (offset, cycles) => {
        expect(at(10 + offset + 20 * cycles, { after: { mode: 'loop' } })).toBe(at(10 + offset, {}));
      }),
    );
  });

  it('gives one key everywhere, and the rest value where there is none', () => {
    expect(sample([key(5, 7)], 900, { after: { mode: 'run-on' } })).toBe(7);
    expect(sample([], 900, { after: { mode: 'loop' } })).toBe(0);
  });

  it('has the rates of the cycle, mirrored in a swing, none in a hold', () => {
    const rate = (frame: number, more: object) => {
      const program = programOf(curveProject(keys, { ...more }));
      return program.channelRates(slotOf(program, CHANNEL), frame)[1] / 24;
    };
    expectClose(rate(30, { after: { mode: 'loop' } }), 0.3, 1e-13);
    expectClose(rate(30, { after: { mode: 'swing' } }), 0.2, 1e-13);
    expectClose(rate(40, { after: { mode: 'swing' } }), -0.3, 1e-13);
    expectClose(rate(50, { after: { mode: 'swing' } }), 0.3, 1e-13);
    expectClose(rate(0, { before: { mode: 'swing' } }), -0.3, 1e-13);
    expectClose(rate(-10, { before: { mode: 'swing' } }), 0.2, 1e-13);
    expect(rate(30, {})).toBe(0);
    expectClose(rate(10, {}), 0.3, 1e-13);
    expectClose(rate(31, { after: { mode: 'run-on' } }), -0.2, 1e-13);
    expect(rate(50, { after: { mode: 'loop', count: 1 } })).toBe(0);
  });
});
