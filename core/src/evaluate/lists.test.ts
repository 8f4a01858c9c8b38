import fc from 'fast-check';
import { withOneMore, withRoom } from './lists';

describe('lists of numbers that grow at their end', () => {
  it('are each what they were made to be, however they branch, though they share their memory', () => {
    const growth = fc.array(fc.record({ of: fc.nat(20), last: fc.nat(2) }), { maxLength: 40 });
    fc.assert(
      fc.property(fc.array(fc.nat(9), { maxLength: 6 }), growth, (first, steps) => {
        const lists = [withRoom(Int32Array.from(first)), Int32Array.from(first)];
        const meant = [first, first];
        for (const { of, last } of steps) {
          const from = of % lists.length;
          lists.push(withOneMore(lists[from]!, last));
          meant.push([...meant[from]!, last]);
        }
        expect(lists.map((list) => [...list])).toEqual(meant);
      }),
    );
  });

  it('are not copied where there is room', () => {
    const list = withRoom(Int32Array.of(1, 2));
    expect(withOneMore(list, 3).buffer).toBe(list.buffer);
    expect(withOneMore(list, 4).buffer).not.toBe(list.buffer);
  });
});
