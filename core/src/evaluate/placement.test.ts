import fc from 'fast-check';
import { programOf, slotOf, testProject } from '../../testing/project';
import { differenceOf, expectClose } from '../../testing/rates';
import { line } from '../../testing/rigged';
import { compile } from './index';

const CHANNEL = 'wagon/translate.x';
const clip = (id: string, ...curves: object[]) => ({ id, name: id, curves });
/** Straight from 1 at frame 0 to 5 at frame 8. */
const RISE = clip('rise', line(CHANNEL, [0, 1], [8, 5]));

function placed(placements: readonly object[], clips: readonly object[] = [RISE], more: object = {}) {
  const arrangement = placements.map((each, i) => ({
    id: `p${i}`,
    clip: 'rise',
    start: 0,
    from: 0,
    to: 8,
    ...each,
  }));
  return testProject({ clips, activeClip: 'rise', arrangement, ...more });
}

function values(...project: Parameters<typeof placed>): (frame: number, channel?: string) => number {
  const program = programOf(placed(...project));
  const out = program.createOutput();
  return (frame, channel = CHANNEL) => {
    const slot = slotOf(program, channel);
    program.run(frame, out);
    expect(program.channelValue(slot, frame)).toBe(out.channels[slot]);
    return out.channels[slot]!;
  };
}

describe('clips laid over time', () => {
  it('cover from their start up to their last pass, and give the rest value outside', () => {
    const at = values([{ start: 10, from: 2, to: 6, speed: 2, repeats: 2.5 }]);
    expect([9.99, 10, 11, 12, 14.5, 15].map((frame) => at(frame))).toEqual([0, 2, 3, 2, 2.5, 0]);
  });

  it('run backward with a negative speed', () => {
    const at = values([{ start: 10, speed: -1, repeats: 2 }]);
    expect([10, 12, 17.5, 18, 25.5].map((frame) => at(frame))).toEqual([5, 4, 1.25, 5, 1.25]);
  });

  it('carry adds what each pass goes, backward too', () => {
    const at = values([{ repeat: 'carry', repeats: 4 }]);
    expect([0, 8, 20, 31.5].map((frame) => at(frame))).toEqual([1, 5, 11, 16.75]);
    const back = values([{ repeat: 'carry', repeats: 3, speed: -1 }]);
    expect([0, 8, 20].map((frame) => back(frame))).toEqual([5, 1, -5]);
  });

  it('hold the limit at their end, with the weight there before any fade', () => {
    const jump = clip('rise', {
      channel: CHANNEL,
      keys: [
        { frame: 0, value: 1, leg: { kind: 'hold' } },
        { frame: 8, value: 9 },
      ],
    });
    expect(values([{ after: 'hold' }], [jump])(20)).toBe(1);
    expect(values([{ after: 'hold', fadeOut: 4, weight: 0.5 }])(20)).toBe(2.5);
    expect(values([{ after: 'hold', repeats: 2.25, repeat: 'carry' }])(40)).toBe(10);
    expect(values([{ after: 'hold', speed: -1 }])(40)).toBe(1);
  });

  it('fade by 3u² − 2u³, replace what is below or add what they go from rest', () => {
    const at = values([{ weight: 0.5 }, { start: 4, mode: 'add', fadeIn: 4 }], [RISE], {
      parts: [{ id: 'wagon', kind: 'group', rest: { translate: [1, 0, 0] } }],
    });
    expect(at(2)).toBe(1 + 0.5 * (2 - 1));
    const u = 0.5;
    expectClose(at(6), 1 + 0.5 * (4 - 1) + u * u * (3 - 2 * u) * (2 - 1), 1e-14);
    const out = values([{ fadeOut: 4 }]);
    expectClose(out(6), 0.5 * 4, 1e-14);
  });

  it('take their time and their weight from curves over the shot', () => {
    const time = { keys: line('', [0, 8], [10, 0]) as unknown };
    const curve = (line('', [0, 8], [10, 0]) as { keys: unknown }).keys;
    expect(time).toBeDefined();
    const at = values([{ start: 2, time: { keys: curve } }]);
    expect([1, 2, 5, 30].map((frame) => at(frame))).toEqual([0, 4.2, 3, 1]);
    const weight = { keys: (line('', [0, 0], [8, 1]) as { keys: unknown }).keys };
    expect(values([{ weight }])(4)).toBe(0.5 * 3);
  });

  it('move other parts by a map, and leave muted curves and placements out', () => {
    const parts = [
      { id: 'wagon', kind: 'group' },
      { id: 'buoy', kind: 'group', rest: { translate: [7, 0, 0] } },
    ];
    const at = values([{ partMap: { wagon: 'buoy' } }, { muted: true }], [RISE], { parts });
    expect([at(4), at(4, 'buoy/translate.x'), at(9, 'buoy/translate.x')]).toEqual([0, 3, 7]);
    const muted = clip('rise', { ...line(CHANNEL, [0, 1], [8, 5]), muted: true });
    expect(values([{}], [muted])(4)).toBe(0);
  });

  it('are not there where one clip is asked for alone', () => {
    const compiled = compile(placed([{ weight: 0 }]), { clip: 'rise' });
    if (!compiled.ok) throw new Error('refused');
    expect(compiled.value.channelValue(slotOf(compiled.value, CHANNEL), 4)).toBe(3);
    expect(programOf(placed([{}])).moving).toEqual([CHANNEL]);
  });

  it('have exact rates', () => {
    const smooth = clip('rise', {
      channel: CHANNEL,
      keys: [
        { frame: 0, value: 1, out: { mode: 'set', slope: 1 } },
        { frame: 5, value: 4 },
        { frame: 8, value: 2 },
      ],
    });
    const weight = {
      keys: [
        { frame: 0, value: 0 },
        { frame: 10, value: 1 },
        { frame: 30, value: 0.4 },
      ],
    };
    const speed = fc.constantFrom(-1.3, 0.7, 2);
    fc.assert(
      fc.property(speed, fc.double({ min: 0.3, max: 4.5, noNaN: true }), (pace, frame) => {
        const program = programOf(
          placed(
            [
              { weight, speed: pace, fadeIn: 6, repeats: 5, repeat: 'carry' },
              { mode: 'add', fadeOut: 3, repeats: 0.8 },
            ],
            [smooth],
          ),
        );
        const slot = slotOf(program, CHANNEL);
        const inSeconds = (s: number) => program.channelRates(slot, s * 24);
        const corner = (frame * Math.abs(pace)) % 8;
        fc.pre([0, 3, 5, 8].every((at) => Math.abs(corner - at) > 0.05) && Math.abs(frame - 3.4) > 0.05);
        const [, v, a, j] = inSeconds(frame / 24);
        const [n1, n2, n3] = differenceOf(inSeconds, frame / 24, 1e-4);
        expectClose(v, n1, 1e-6);
        expectClose(a, n2, 1e-5);
        expectClose(j, n3, 1e-4);
      }),
    );
  });

  it.each([
    [{ from: 8, to: 8 }, '/arrangement/0/to', /from must be less than to/],
    [{ speed: 0 }, '/arrangement/0/speed', /more or less than 0/],
    [{ clip: 'none' }, '/arrangement/0/clip', /no clip has the id "none"/],
    [{ partMap: { wagon: 'none' } }, '/arrangement/0/partMap/wagon', /no part has the id "none"/],
    [{ fadeIn: -1 }, '/arrangement/0/fadeIn', /at least 0|>= 0/],
  ])('%j is refused', (change, pointer, message) => {
    expect(() => placed([change])).toThrow(pointer);
    expect(() => placed([change])).toThrow(message);
  });

  it('two curves of a clip that arrive at one channel are refused', () => {
    const two = clip('rise', line(CHANNEL, [0, 1]), line('buoy/translate.x', [0, 1]));
    const parts = [
      { id: 'wagon', kind: 'group' },
      { id: 'buoy', kind: 'group' },
    ];
    expect(() => placed([{ partMap: { wagon: 'buoy' } }], [two], { parts })).toThrow(
      /both arrive at buoy\/translate\.x/,
    );
  });
});
