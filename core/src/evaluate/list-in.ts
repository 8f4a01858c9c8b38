/** The list under a key, made where there is none. */
export function listIn<K>(map: Map<K, number[]>, key: K): number[] {
  let list = map.get(key);
  if (!list) map.set(key, (list = []));
  return list;
}
