import { setOwn } from './own-field';
import { DEFAULT_LEG, DEFAULT_SIDE } from './curve-fields';
import type { Key, KeyedCurve } from './curve-types';

/** A key that has only a frame and a value, all else by default. */
export function bareKey(frame: number, value: number): Key {
  return { frame, value, in: DEFAULT_SIDE, out: DEFAULT_SIDE, joined: true, leg: DEFAULT_LEG };
}

/** Bare keys as numbers, `[frame, value]` a key, and as keys once somebody has asked for them. */
interface Packed {
  readonly numbers: Float64Array;
  keys: readonly Key[] | null;
}

const PACKED = Symbol('packed keys');
type PackedCurve = object & { readonly [PACKED]?: Packed };

/** How `keys` stands in a packed curve: a field like others to whoever reads, copies or writes the curve. */
const KEYS: PropertyDescriptor & ThisType<PackedCurve> = {
  enumerable: true,
  configurable: true,
  get() {
    const packed = this[PACKED]!;
    return (packed.keys ??= unpacked(packed.numbers));
  },
};

function unpacked(numbers: Float64Array): readonly Key[] {
  const keys = new Array<Key>(numbers.length / 2);
  for (let i = 0; i < keys.length; i++) keys[i] = bareKey(numbers[2 * i]!, numbers[2 * i + 1]!);
  return keys;
}

/**
 * The fields of a curve with bare keys, `[frame, value]` a key, in the place of its field `keys`. The keys are made when they are first
 * asked for: a big project is opened and drawn without most of them. A copy of the curve has them as any other.
 */
export function withPackedKeys<T extends { readonly keys: unknown }>(
  fields: T,
  numbers: Float64Array,
): Omit<T, 'keys'> & { readonly keys: readonly Key[] } {
  const curve: Record<string, unknown> = {};
  Object.defineProperty(curve, PACKED, { value: { numbers, keys: null } satisfies Packed });
  for (const name in fields) {
    if (name === 'keys') Object.defineProperty(curve, name, KEYS);
    else setOwn(curve, name, fields[name]);
  }
  return curve as Omit<T, 'keys'> & { readonly keys: readonly Key[] };
}

/** The keys of a curve as numbers, `[frame, value]` a key, where they are bare and lie so; else null. */
export function packedKeys(curve: Pick<KeyedCurve, 'keys'>): Float64Array | null {
  return (curve as PackedCurve)[PACKED]?.numbers ?? null;
}

/** The frames of the first and the last key of a curve; null where it has none. The keys need not be made for it. */
export function keyedSpan(
  curve: Pick<KeyedCurve, 'keys'>,
): { readonly first: number; readonly last: number } | null {
  const numbers = packedKeys(curve);
  if (numbers) return numbers.length > 0 ? { first: numbers[0]!, last: numbers[numbers.length - 2]! } : null;
  const [first, last] = [curve.keys[0], curve.keys.at(-1)];
  return first && last ? { first: first.frame, last: last.frame } : null;
}

/** Whether a curve has any key. The keys need not be made for it. */
export function isKeyed(curve: Pick<KeyedCurve, 'keys'>): boolean {
  return (packedKeys(curve) ?? curve.keys).length > 0;
}

/** Tells the frame and value of each key of a curve in order. The keys need not be made for it. */
export function eachKey(curve: Pick<KeyedCurve, 'keys'>, tell: (frame: number, value: number) => void): void {
  const numbers = packedKeys(curve);
  if (numbers) for (let i = 0; i < numbers.length; i += 2) tell(numbers[i]!, numbers[i + 1]!);
  else for (const { frame, value } of curve.keys) tell(frame, value);
}
