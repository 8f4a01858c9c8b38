/** The list under a key, made where there is none. */
export function listIn<K>(map: Map<K, number[]>, key: K): number[] {
  let list = map.get(key);
  if (!list) map.set(key, (list = []));
  return list;
}

/** A list of numbers with one more at its end. */
export function withOneMore(list: Int32Array, last: number): Int32Array {
  const longer = new Int32Array(list.length + 1);
  longer.set(list);
  longer[list.length] = last;
  return longer;
}
