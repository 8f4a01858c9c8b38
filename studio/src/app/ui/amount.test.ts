import { shownClock, applyAmount, readAmount, shownFrame, shownNumber } from './amount';

describe('a typed amount', () => {
  it.each([
    ['12/5', 'm', 'set', 2.4],
    ['40 cm', 'm', 'set', 0.4],
    ['40cm', 'm', 'set', 0.4],
    ['1.5 s', 'f', 'set', 36],
    ['36', 'f', 'set', 36],
    ['90 rpm', '°/s', 'set', 540],
    ['2 turns', '°', 'set', 720],
    ['by 3', 'f', 'by', 3],
    ['by -0.2', 'm', 'by', -0.2],
    ['by −5 cm', 'm', 'by', -0.05],
    ['times 2', '°', 'times', 2],
    ['(1 + 2) * 3', '', 'set', 9],
    ['+4', 'm', 'set', 4],
    ['2*pi rad', '°', 'set', 360],
  ])('%s in %s', (text, unit, kind, value) => {
    const amount = readAmount(text, unit);
    expect(amount.kind).toBe(kind);
    expect((amount as { value: number }).value).toBeCloseTo(value, 12);
  });

  it.each(['', 'twelve', '1/0', 'by', '3 kg', '1 +'])('"%s" is answered with what would be right', (text) => {
    expect(readAmount(text, 'm')).toMatchObject({
      kind: 'wrong',
      message: expect.stringMatching(/type one like/) as string,
    });
  });

  it('applies to each value', () => {
    expect(
      [
        { kind: 'set', value: 3 },
        { kind: 'by', value: 3 },
        { kind: 'times', value: 3 },
      ].map((a) => applyAmount(a as never, 2)),
    ).toEqual([3, 5, 6]);
  });

  it('is shown with a true minus and never as minus zero', () => {
    expect(shownNumber(-1.25, 1)).toBe('−1.3');
    expect(shownNumber(-0.0001, 2)).toBe('0.00');
    expect(shownFrame(12.5)).toBe('12.5');
    expect(shownFrame(-3)).toBe('−3');
  });
});

describe('hours', () => {
  it('are typed as a clock shows them, and shown so', () => {
    expect(readAmount('6:40', 'h')).toEqual({ kind: 'set', value: 6 + 40 / 60 });
    expect(readAmount('by 1:30', 'h')).toEqual({ kind: 'by', value: 1.5 });
    expect(readAmount('19.5', 'h')).toEqual({ kind: 'set', value: 19.5 });
    expect(readAmount('90 min', 'h')).toEqual({ kind: 'set', value: 1.5 });
    expect(readAmount('6:40', 'm').kind).toBe('wrong');
    expect([shownClock(6 + 40 / 60), shownClock(19.1667), shownClock(23.999), shownClock(-0.5)]).toEqual([
      '6:40',
      '19:10',
      '24:00',
      '−0:30',
    ]);
  });
});
