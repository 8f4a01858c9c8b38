import fc from 'fast-check';
import { greatestChange, readLanes } from './lanes';
import { curveOf } from '../edit';
import { LINEAR, key } from '../../testing/curve';
import { testProject, valueAt } from '../../testing/project';

const X = 'wagon/translate.x';
const RISE = [key(0, 0, LINEAR), key(10, 10, LINEAR)];

function reading(treatments: readonly object[], keys: readonly object[] = RISE) {
  const project = testProject({}, [{ channel: X, keys, treatments }]);
  return { project, lanes: readLanes(project, curveOf(project, X)!) };
}

describe('a curve taken apart into its treatments', () => {
  const clamp = { kind: 'clamp', max: 6 };
  const gain = { kind: 'gain', factor: 2 };

  it('gives what enters and leaves each lane, in their order', () => {
    const { lanes } = reading([clamp, gain]);
    expect(lanes.keyed(8)).toBe(8);
    expect([0, 1].map((lane) => lanes.after(lane, 8))).toEqual([6, 12]);
    expect(lanes.lanes.map((lane) => lane.change(8))).toEqual([-2, 6]);
  });

  it('weighs what a lane changes, by a number or over time', () => {
    const half = reading([{ ...clamp, weight: 0.5 }]).lanes.lanes[0]!;
    expect([half.change(8), half.fullChange(8), half.weight(8)]).toEqual([-1, -2, 0.5]);
    const weight = { keys: [key(0, 0, LINEAR), key(10, 1, LINEAR)] };
    const rising = reading([{ ...gain, weight }]).lanes.lanes[0]!;
    expect(rising.weight(4)).toBeCloseTo(0.4, 14);
    expect(rising.change(4)).toBeCloseTo(0.4 * 4, 13);
  });

  it('passes a muted lane by, but tells what it would do', () => {
    const { lanes } = reading([{ ...clamp, muted: true }, gain]);
    expect(lanes.lanes[0]!.change(8)).toBe(0);
    expect(lanes.lanes[0]!.fullChange(8)).toBe(-2);
    expect(lanes.after(1, 8)).toBe(16);
  });

  it('measures its hairs against the greatest change over the frames asked for', () => {
    const [lane] = reading([clamp]).lanes.lanes;
    expect(greatestChange(lane!, 0, 10)).toBe(4);
    expect(greatestChange(lane!, 0, 7.5)).toBe(1);
    expect(greatestChange(lane!, 0, 1e9)).toBe(4);
  });

  it('ends in the very value that the channel shows, whatever lies over it', () => {
    const treatment = fc.oneof(
      fc.record({ kind: fc.constant('gain'), factor: fc.integer({ min: -3, max: 3 }), muted: fc.boolean() }),
      fc.record({ kind: fc.constant('delay'), frames: fc.integer({ min: -5, max: 5 }), muted: fc.boolean() }),
      fc.record({
        kind: fc.constant('every'),
        frames: fc.integer({ min: 1, max: 6 }),
        weight: fc.constantFrom(0.25, 1),
      }),
      fc.record({
        kind: fc.constant('noise'),
        amplitude: fc.integer({ min: 0, max: 4 }),
        period: fc.constant(5),
        seed: fc.nat(9),
      }),
    );
    fc.assert(
      fc.property(
        fc.array(treatment, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: -8, max: 20 }),
        (laid, frame) => {
          const { project, lanes } = reading(laid);
          expect(lanes.after(laid.length - 1, frame)).toBe(valueAt(project, X, frame));
        },
      ),
    );
  });
});
