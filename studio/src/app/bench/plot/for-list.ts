interface Known<T, R> {
  readonly list: readonly T[];
  readonly asked: unknown;
  readonly result: R;
}

/** Remembers what a function made of a list of objects, as long as it is asked for the very same ones, and the same besides. */
export function forList<T extends object, A, R>(
  make: (list: readonly T[], asked: A) => R,
): (list: readonly T[], asked: A) => R {
  const known = new WeakMap<T, Known<T, R>>();
  return (list, asked) => {
    const [first] = list;
    if (!first) return make(list, asked);
    const had = known.get(first);
    if (
      had?.asked === asked &&
      had.list.length === list.length &&
      had.list.every((item, i) => item === list[i])
    )
      return had.result;
    const result = make(list, asked);
    known.set(first, { list, asked, result });
    return result;
  };
}
