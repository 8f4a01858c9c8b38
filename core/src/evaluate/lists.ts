/** The list under a key, made where there is none. */
export function listIn<K>(map: Map<K, number[]>, key: K): number[] {
  let list = map.get(key);
  if (!list) map.set(key, (list = []));
  return list;
}

/** How many numbers of a memory belong to a list by now. */
const taken = new WeakMap<ArrayBufferLike, number>();

/** The same numbers in a memory with room for more behind them. */
export function withRoom(list: Int32Array): Int32Array {
  const { length } = list;
  const whole = new Int32Array(length + (length >> 3) + 8);
  whole.set(list);
  taken.set(whole.buffer, length);
  return whole.subarray(0, length);
}

/**
 * A list of numbers with one more at its end. It looks into the same memory where there is room behind the list that nobody else has
 * written another number to.
 */
export function withOneMore(list: Int32Array, last: number): Int32Array {
  const { length, buffer } = list;
  const used = taken.get(buffer);
  if (used === undefined || (length + 1) * list.BYTES_PER_ELEMENT > buffer.byteLength)
    return withOneMore(withRoom(list), last);
  const longer = new Int32Array(buffer, 0, length + 1);
  if (used > length) return longer[length] === last ? longer : withOneMore(withRoom(list), last);
  longer[length] = last;
  taken.set(buffer, length + 1);
  return longer;
}

/** A list with room for so many numbers, and some more where it had to grow; what is new in it is `filled`. */
export function longer(
  list: Int32Array<ArrayBuffer>,
  count: number,
  filled: number,
): Int32Array<ArrayBuffer> {
  if (count <= list.length) return list;
  const made = new Int32Array(list.length === 0 ? count : count + (count >> 2) + 8).fill(filled);
  made.set(list);
  return made;
}
