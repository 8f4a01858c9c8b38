import { changeRateKeepingSeconds, expressionsCountingFrames } from './index';
import { programOf, slotOf, testProject } from '../../testing/project';
import { expectClose } from '../../testing/rates';

describe('changing the rate', () => {
  const project = testProject(
    {
      range: { start: 12, end: 96 },
      drivers: [
        {
          id: 'e',
          target: 'wagon/translate.y',
          kind: 'echo',
          input: 'wagon/translate.x',
          delay: 5,
          gain: 0.5,
        },
        { id: 'x', target: 'wagon/translate.z', kind: 'expression', inputs: {}, expression: 'seconds * 2' },
      ],
    },
    [
      {
        channel: 'wagon/translate.x',
        keys: [
          { frame: 12, value: 0, out: { mode: 'set', slope: 0.3 } },
          { frame: 30, value: 4, leg: { kind: 'ballistic' } },
          { frame: 50, value: 3 },
        ],
        after: { mode: 'loop', pin: 30 },
        treatments: [
          { kind: 'noise', amplitude: 0.1, period: 6, seed: 4 },
          {
            kind: 'delay',
            frames: 2,
            weight: {
              keys: [
                { frame: 0, value: 0 },
                { frame: 60, value: 1 },
              ],
            },
          },
        ],
      },
    ],
  );

  it('keeps every value and rate at its second', () => {
    const other = changeRateKeepingSeconds(project, { frames: 30000, per: 1001 }).project;
    const [before, after] = [programOf(project), programOf(other)];
    const factor = 30000 / 1001 / 24;
    for (const channel of ['wagon/translate.x', 'wagon/translate.y', 'wagon/translate.z']) {
      for (let frame = 0; frame < 150; frame += 1.7) {
        const a = before.channelRates(slotOf(before, channel), frame);
        const b = after.channelRates(slotOf(after, channel), frame * factor);
        a.forEach((value, k) => expectClose(b[k]!, value, k < 3 ? 1e-8 : 1e-6));
      }
    }
    expectClose(other.range.end, 96 * factor, 1e-14);
  });

  it('names the expressions that count frames', () => {
    const counting = testProject({
      drivers: [
        {
          id: 'q',
          target: 'wagon/translate.z',
          kind: 'expression',
          inputs: { frames: 'wagon/translate.x' },
          expression: 'frames + frame',
        },
      ],
    });
    expect(expressionsCountingFrames(counting)).toEqual(['q']);
    expect(expressionsCountingFrames(project)).toEqual([]);
  });
});
