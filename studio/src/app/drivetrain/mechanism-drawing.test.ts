import { LINKAGES } from '@kaizen/core';
import { LINKAGE_WORDS } from '../bench/drive/driver-words';
import { drawMechanism, type Drawing } from './mechanism-drawing';

function drawn(
  name: string,
  inputs: readonly number[],
  own: Readonly<Record<string, unknown>> = {},
): Drawing {
  const linkage = LINKAGES.get(name)!;
  const read = linkage.read({ ...LINKAGE_WORDS[name]!.params, ...own });
  if ('message' in read) throw new Error(read.message);
  return drawMechanism(name, read.params as Record<string, unknown>, read.make(), inputs)!;
}

const lengths = ({ bars }: Drawing) => bars.map(([[a, b], [c, d]]) => Math.hypot(a - c, b - d));

describe('the drawing of a mechanism', () => {
  it.each([...LINKAGES.keys()])('of %s is there, all of it finite', (name) => {
    const { inputs } = LINKAGES.get(name)!;
    const at = inputs.map((input) => (input === 'angle' ? 33 : 0.7));
    const drawing = drawn(name, at);
    const numbers = [drawing.bars, drawing.circles, drawing.joints, drawing.grounds, drawing.lines].flat(4);
    expect(numbers.length).toBeGreaterThan(4);
    expect(numbers.every((value) => Number.isFinite(value))).toBe(true);
  });

  it('has its bars as long as they are, at every angle', () => {
    for (const angle of [0, 40, 130, 200, 310]) {
      const [crank, rod] = lengths(drawn('slider-crank', [angle], { offset: 0.05 }));
      expect([crank, rod]).toEqual([expect.closeTo(0.2, 9), expect.closeTo(0.8, 9)]);
      expect(lengths(drawn('four-bar', [angle]))).toEqual([
        expect.closeTo(0.3, 9),
        expect.closeTo(0.9, 9),
        expect.closeTo(0.7, 9),
      ]);
    }
    const arm = drawn('two-link', [0.9, 1.1]);
    expect(lengths(arm)).toEqual([expect.closeTo(1, 9), expect.closeTo(0.8, 9)]);
    expect(arm.joints[1]).toEqual([expect.closeTo(0.9, 9), expect.closeTo(1.1, 9)]);
    expect(lengths(drawn('scissor', [0.6])).every((length) => Math.abs(length - 1) < 1e-9)).toBe(true);
  });

  it('has the pin of a Geneva wheel in a slot while it is engaged', () => {
    for (const angle of [-40, -10, 0, 25, 44]) {
      const { bars, joints } = drawn('geneva', [angle]);
      const [pin] = joints;
      const aside = bars.slice(1).map(([[x1, y1], [x2, y2]]) => {
        const cross = (x2 - x1) * (pin![1] - y1) - (y2 - y1) * (pin![0] - x1);
        return Math.abs(cross) / Math.hypot(x2 - x1, y2 - y1);
      });
      expect(Math.min(...aside)).toBeLessThan(1e-9);
    }
  });
});
