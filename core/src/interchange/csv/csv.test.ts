import fc from 'fast-check';
import { csvLines, csvNumber, frameList, worldLines } from './write-csv';
import { programOf, testProject } from '../../../testing/project';

describe('CSV', () => {
  it('writes numbers in the shortest form that reads back', () => {
    fc.assert(
      fc.property(
        fc.double({ noNaN: true, noDefaultInfinity: true }),
        (x) => Number(csvNumber(x)) === (x === 0 ? 0 : x),
      ),
    );
    expect(csvNumber(-0)).toBe('0');
    expect(csvNumber(Infinity)).toBe('');
    expect(csvNumber(0.1 + 0.2)).toBe('0.30000000000000004');
  });

  it('counts frames as A + i·STEP, the end within 1e-9', () => {
    expect(frameList(0, 1, 0.1)).toHaveLength(11);
    expect(frameList(0, 0.9999999999, 0.1)).toHaveLength(11);
    expect(frameList(0, 0.99, 0.1)).toHaveLength(10);
    expect(frameList(-2, 3)).toEqual([-2, -1, 0, 1, 2, 3]);
  });

  it('writes each frame as it does by itself, whatever stood before it: what moves, rests, jumps or is not finite', () => {
    const project = testProject({}, [
      {
        channel: 'wagon/translate.x',
        keys: [
          { frame: 0, value: -0, leg: { kind: 'ease', family: 'circle', slow: 'end' } },
          { frame: 4, value: 2, leg: { kind: 'hold' } },
          { frame: 8, value: 3 },
        ],
      },
    ]);
    const program = programOf(project);
    const channels = ['wagon/translate.x'];
    const frame = fc.integer({ min: -2, max: 10 });
    fc.assert(
      fc.property(fc.array(frame), fc.boolean(), (frames, rates) => {
        const [, ...together] = csvLines(program, { frames, channels, rates });
        const alone = frames.map((at) => [...csvLines(program, { frames: [at], channels, rates })][1]);
        expect(together).toEqual(alone);
      }),
    );
  });

  it('has a header, a line a frame, rates after each channel, empty cells for what is not finite', () => {
    const project = testProject({}, [
      {
        channel: 'wagon/translate.x',
        keys: [
          { frame: 0, value: 1, leg: { kind: 'ease', family: 'circle', slow: 'end' } },
          { frame: 24, value: 2 },
        ],
      },
    ]);
    const program = programOf(project);
    const lines = [...csvLines(program, { frames: [0, 24], channels: ['wagon/translate.x'], rates: true })];
    expect(lines).toEqual([
      'frame,wagon/translate.x,wagon/translate.x:velocity,wagon/translate.x:acceleration,wagon/translate.x:jerk\n',
      '0,1,,,\n',
      '24,2,0,0,0\n',
    ]);
    expect(JSON.parse([...worldLines(program, [24])][0]!)).toEqual({
      frame: 24,
      parts: { wagon: [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 2, 0, 0, 1] },
    });
  });
});
