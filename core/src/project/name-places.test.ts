import { NamePlaces } from './name-places';

describe('places by name', () => {
  const nameOf = (thing: { readonly name: string }) => thing.name;
  const named = (...names: readonly string[]) => names.map((name) => ({ name }));

  it('are those of the list that is asked, also where two lists grew differently out of one', () => {
    const first = NamePlaces.of(named('a', 'b'), nameOf);
    const one = first.grownTo(named('a', 'b', 'c'));
    const other = first.grownTo(named('a', 'b', 'd', 'c'));
    expect([first, one, other].map((places) => places.get('c'))).toEqual([undefined, 2, 3]);
    expect([first, one, other].map((places) => places.get('d'))).toEqual([undefined, undefined, 2]);
    expect([first, one, other].map((places) => places.has('b'))).toEqual([true, true, true]);
    expect(NamePlaces.of(named(), nameOf).get('a')).toBeUndefined();
  });
});
