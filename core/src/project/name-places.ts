/** Where lists that grew out of each other have a name: nearly always at one place in all of them. */
interface Known {
  readonly first: Map<string, number>;
  readonly more: Map<string, number[]>;
}

/**
 * Places of the things of a list by their names. Lists that grow out of each other share what is known, so that a thing added at the end
 * costs no walk through the others; what stands at a place is checked against the list that is asked.
 */
export class NamePlaces<T> {
  private constructor(
    private readonly list: readonly T[],
    private readonly nameOf: (thing: T) => string,
    private readonly known: Known,
  ) {}

  static of<T>(list: readonly T[], nameOf: (thing: T) => string): NamePlaces<T> {
    const places = new NamePlaces(list, nameOf, { first: new Map(), more: new Map() });
    places.know(0);
    return places;
  }

  /** The places of a list that has the same names at the same places, and perhaps more. */
  grownTo(list: readonly T[]): NamePlaces<T> {
    const next = new NamePlaces(list, this.nameOf, this.known);
    next.know(this.list.length);
    return next;
  }

  private know(from: number): void {
    const { first, more } = this.known;
    for (let i = from; i < this.list.length; i++) {
      const name = this.nameOf(this.list[i]!);
      const place = first.get(name);
      if (place === undefined) first.set(name, i);
      else if (place !== i && !more.get(name)?.includes(i)) more.set(name, [...(more.get(name) ?? []), i]);
    }
  }

  /** The first place with a name. */
  get(name: string): number | undefined {
    const { first, more } = this.known;
    const place = first.get(name);
    if (place === undefined) return undefined;
    const others = more.get(name);
    if (!others) return this.isAt(place, name) ? place : undefined;
    const here = [place, ...others].filter((at) => this.isAt(at, name));
    return here.length > 0 ? Math.min(...here) : undefined;
  }

  private isAt(place: number, name: string): boolean {
    const thing = this.list[place];
    return thing !== undefined && this.nameOf(thing) === name;
  }

  has(name: string): boolean {
    return this.get(name) !== undefined;
  }
}

interface Named {
  readonly id: string;
}
const placesById = new WeakMap<readonly unknown[], NamePlaces<Named>>();
const idOf = ({ id }: Named) => id;

/** The place of the thing with an id in a list, or −1. The places are found once and go along through edits that keep the ids. */
export function placeOfId(list: readonly Named[], id: string): number {
  let places = placesById.get(list);
  if (!places) placesById.set(list, (places = NamePlaces.of(list, idOf)));
  return places.get(id) ?? -1;
}

/** Has a list that grew out of another, with other things at some places, share what is known of its ids. */
export function sharePlaces(
  list: readonly unknown[],
  next: readonly unknown[],
  changed: Iterable<number>,
): void {
  const places = placesById.get(list);
  if (!places) return;
  const [before, after] = [list, next] as [readonly Named[], readonly Named[]];
  for (const place of changed) if (before[place]!.id !== after[place]!.id) return;
  placesById.set(next, places.grownTo(after));
}
