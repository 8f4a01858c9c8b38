import { changedPlaces, replacedAt } from './changed-places';

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
});
