import { cruises, speedMarks } from './speed-marks';
import { curveOf, setLeg } from '../edit';
import { RUN, wagonProject } from '../../testing/wagon';

const trapezoid = () =>
  setLeg(wagonProject(), [{ channel: RUN, frame: 0 }], {
    kind: 'law',
    law: 'trapezoid',
    accelerate: 0.25,
    decelerate: 0.25,
  });

describe('what can be taken hold of in the speed', () => {
  it('are keys of Curve legs and the ends of ramps, with their true speeds', () => {
    const marks = speedMarks(trapezoid(), curveOf(trapezoid(), RUN)!, (frame) => frame === 0);
    expect(
      marks.map(({ kind, frame, speed, chosen }) => [kind, frame, Math.round(speed * 1e6) / 1e6, chosen]),
    ).toEqual([
      ['ramp', 6, 2.666667, true],
      ['ramp', 18, 2.666667, true],
      ['key', 24, 0, false],
      ['key', 48, 0, false],
    ]);
    expect(cruises(trapezoid(), curveOf(trapezoid(), RUN)!)).toMatchObject([{ from: 6, to: 18 }]);
  });
});
