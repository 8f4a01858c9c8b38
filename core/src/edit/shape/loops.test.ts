import { secondsPerFrame, type Project } from '../../project';
import { compileCurve, curveJet, seamGaps } from '../../curve';
import { CHANNEL, curveProject, compiledOf } from '../../../testing/curve';
import { testProject } from '../../../testing/project';
import {
  changeCurves,
  closeSeamSpeed,
  closeSeamValue,
  curveContext,
  curveOf,
  loopSpeed,
  makeEven,
  setLoopSpeed,
  setRoundSeconds,
} from '..';

describe('seams', () => {
  const loop = (mode: string, more: object = {}) =>
    curveProject(
      [
        { frame: 0, value: 1, out: { mode: 'set', slope: 0.1 } },
        { frame: 10, value: 4 },
        { frame: 24, value: 3, in: { mode: 'set', slope: -0.2 } },
      ],
      { after: { mode, ...more } },
    );
  const gap = (of: Project) => seamGaps(curveOf(of, CHANNEL)!, compiledOf(of), secondsPerFrame(of.rate))[0]!;

  it('are measured in units: value, per second, per second squared', () => {
    expect(gap(loop('loop'))).toMatchObject({ side: 'after', frame: 24, to: 0, value: -2 });
    expect(gap(loop('loop')).speed).toBeCloseTo(0.3 * 24, 9);
    expect(gap(loop('loop-carry')).value).toBe(0);
    expect(gap(loop('swing'))).toMatchObject({ value: 0 });
    expect(gap(loop('swing')).speed).toBeCloseTo(0.4 * 24, 9);
    expect(gap(loop('loop', { pin: 10 })).value).toBe(1);
  });

  it('a hold before the seam shows the jump that is seen', () => {
    const held = curveProject(
      [
        { frame: 0, value: 1 },
        { frame: 10, value: 4, leg: { kind: 'hold' } },
        { frame: 20, value: 1 },
      ],
      { after: { mode: 'loop' } },
    );
    expect(gap(held).value).toBe(-3);
  });

  it.each(['outer', 'both', 'carry'] as const)('close in value: %s', (how) => {
    expect(gap(closeSeamValue(loop('loop'), [CHANNEL], 'after', how)).value).toBe(0);
  });

  it.each(['outer', 'both'] as const)('close in speed: %s', (how) => {
    for (const mode of ['loop', 'loop-carry', 'swing'])
      expect(gap(closeSeamSpeed(loop(mode), [CHANNEL], 'after', how)).speed).toBeCloseTo(0, 9);
  });

  it('treated curves are measured as they show', () => {
    const noisy = curveProject(
      [
        { frame: 0, value: 0 },
        { frame: 24, value: 0 },
      ],
      {
        after: { mode: 'loop' },
        treatments: [{ kind: 'noise', amplitude: 1, period: 7, seed: 2, loop: 24 }],
      },
    );
    expect(Math.abs(gap(noisy).value)).toBeLessThan(1e-9);
    expect(Math.abs(gap(noisy).speed)).toBeLessThan(1e-6);
  });
});

describe('the speed of a loop', () => {
  const wheel = () =>
    testProject({}, [
      {
        channel: 'wagon/rotate.y',
        keys: [
          { frame: 0, value: 0 },
          { frame: 30, value: 40 },
          { frame: 90, value: 160 },
          { frame: 130, value: 290 },
        ],
        after: { mode: 'loop-carry', pin: 30 },
      },
    ]);
  const turn = (of: Project) => curveOf(of, 'wagon/rotate.y')!;
  const withCurve = (of: Project, next: ReturnType<typeof setLoopSpeed>) =>
    changeCurves(of, ['wagon/rotate.y'], (curve) => next ?? curve);

  it('is the way of a round over its time', () => {
    expect(loopSpeed(wheel(), turn(wheel()))).toMatchObject({
      end: 'after',
      perSecond: expect.closeTo(60, 9),
    });
    expect(loopSpeed(wheel(), turn(wheel()))!.seconds).toBeCloseTo(100 / 24, 12);
  });

  it('made even: a straight round that a lead-in arrives at with the same speed', () => {
    const even = makeEven(wheel(), ['wagon/rotate.y']);
    const shown = compileCurve(turn(even), 0, curveContext(even));
    for (const frame of [31, 77, 129, 131, 400, 5000.5])
      expect(curveJet(shown, frame)[1]).toBeCloseTo(2.5, 9);
    expect(curveJet(shown, 29.9999)[1]).toBeCloseTo(2.5, 3);
    expect(turn(even).keys.map(({ frame }) => frame)).toEqual([0, 30, 130]);
  });

  it('9 rpm, keeping the values: the round takes another time; keeping the times: it goes another way', () => {
    const even = makeEven(wheel(), ['wagon/rotate.y']);
    const faster = withCurve(even, setLoopSpeed(even, turn(even), 54, 'values'));
    expect(turn(faster).keys.at(-1)).toMatchObject({ value: 290 });
    expect(turn(faster).keys.at(-1)!.frame).toBeCloseTo(30 + (250 / 54) * 24, 6);
    const farther = withCurve(even, setLoopSpeed(even, turn(even), 54, 'times'));
    expect(turn(farther).keys.at(-1)).toMatchObject({ frame: 130, value: 40 + (54 * 100) / 24 });
    for (const made of [faster, farther]) {
      const shown = compileCurve(turn(made), 0, curveContext(made));
      for (const frame of [40, 200, 1234]) expect(curveJet(shown, frame)[1] * 24).toBeCloseTo(54, 6);
      expect(curveJet(shown, 29.9999)[1] * 24).toBeCloseTo(54, 1);
      expect(turn(made).keys.slice(0, 2)).toMatchObject([
        { frame: 0, value: 0 },
        { frame: 30, value: 40 },
      ]);
    }
  });

  it('seconds a round; what can’t be is refused', () => {
    expect(setRoundSeconds(wheel(), turn(wheel()), 5)!.keys.at(-1)!.frame).toBeCloseTo(150, 9);
    expect(setRoundSeconds(wheel(), turn(wheel()), 0)).toBeNull();
    expect(setLoopSpeed(wheel(), turn(wheel()), -20, 'values')).toBeNull();
    expect(setLoopSpeed(wheel(), turn(wheel()), -20, 'times')!.keys.at(-1)!.value).toBeLessThan(40);
  });
});
