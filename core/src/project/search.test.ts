import fc from 'fast-check';
import { firstAfter, firstAtOrAfter, firstWhere } from './search';

const rising = fc.array(fc.integer({ min: 0, max: 20 })).map((list) => list.sort((a, b) => a - b));

describe('searching a rising list', () => {
  it('finds the very place that looking at one after the other finds', () => {
    fc.assert(
      fc.property(rising, fc.integer({ min: -2, max: 22 }), (list, number) => {
        const place = (is: (value: number) => boolean) => {
          const found = list.findIndex(is);
          return found < 0 ? list.length : found;
        };
        expect(firstAfter(list, number)).toBe(place((value) => value > number));
        expect(firstAtOrAfter(list, number)).toBe(place((value) => value >= number));
        expect(firstWhere(0, list.length, (i) => list[i]! > number)).toBe(firstAfter(list, number));
      }),
    );
  });

  it('stays within its bounds', () => {
    const list = [1, 2, 3, 4, 5];
    expect(firstAfter(list, 0, 2, 4)).toBe(2);
    expect(firstAfter(list, 9, 2, 4)).toBe(4);
    expect(firstAtOrAfter(list, 4, 2, 4)).toBe(3);
    expect(firstWhere(3, 3, () => true)).toBe(3);
  });
});
