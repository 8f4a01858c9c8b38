import fc from 'fast-check';
import { changedList, changedPlaces, replacedAt, withMore } from './changed-places';
import { placeOfId } from './name-places';

describe('what differs between two lists', () => {
  const list = [{}, {}, {}];

  it('is told by its places, as far as both lists go', () => {
    expect(changedPlaces(list, list)).toEqual([]);
    expect(changedPlaces(list, [...list, {}])).toEqual([]);
    expect(changedPlaces(list, replacedAt(replacedAt(list, 0, {}), 2, {}))).toEqual([0, 2]);
    expect(changedPlaces(list, [{}])).toEqual([0]);
  });

  it('comes from a copy: the list before stays as it is', () => {
    const [first] = list;
    expect(replacedAt(list, 0, {})[0]).not.toBe(first);
    expect(list[0]).toBe(first);
  });

  it('is the same whether it was remembered or has to be looked for', () => {
    const edit = fc.record({
      changes: fc.array(fc.nat(5), { maxLength: 3 }),
      more: fc.nat(2),
      from: fc.nat(8),
    });
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 8 }), (edits) => {
        const lists: (readonly object[])[] = [Array.from({ length: 6 }, () => ({}))];
        for (const { changes, more, from } of edits) {
          const made = Array.from({ length: more }, () => ({}));
          lists.push(
            changedList(lists[from % lists.length]!, new Map(changes.map((place) => [place, {}])), made),
          );
        }
        for (const a of lists)
          for (const b of lists)
            expect([...changedPlaces(a, b)].sort()).toEqual([...changedPlaces([...a], [...b])].sort());
      }),
    );
    expect(withMore(list, list[0]!)).toEqual([...list, list[0]]);
  });

  it('by id are those that a walk finds, whatever lists came out of each other', () => {
    const edit = fc.record({
      from: fc.nat(8),
      keep: fc.array(fc.nat(5), { maxLength: 2 }),
      rename: fc.array(fc.tuple(fc.nat(5), fc.nat(9)), { maxLength: 1 }),
      more: fc.array(fc.nat(9), { maxLength: 2 }),
    });
    const added = (from: number, more: number[]) => ({ from, keep: [], rename: [], more });
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 8 }), (edits) => {
        const named = (n: number) => ({ id: `id${n}` });
        const lists: (readonly { readonly id: string }[])[] = [[0, 1, 2, 3, 4, 5].map(named)];
        const check = () => {
          for (const list of lists)
            for (let n = 0; n < 10; n++)
              expect(placeOfId(list, `id${n}`)).toBe(list.findIndex(({ id }) => id === `id${n}`));
        };
        for (const { from, keep, rename, more } of edits) {
          check();
          const list = lists[from % lists.length]!;
          const changes = new Map([
            ...keep.map((place) => [place, { ...list[place]! }] as const),
            ...rename.map(([place, n]) => [place, named(n)] as const),
          ]);
          lists.push(changedList(list, changes, more.map(named)));
        }
        check();
      }),
      { examples: [[[added(0, [0, 9]), added(0, [9]), added(2, [9])]]] },
    );
  });
});
