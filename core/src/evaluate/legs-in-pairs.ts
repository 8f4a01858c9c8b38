import {
  F64,
  f64,
  f64x2,
  I32,
  i32,
  inRow,
  local,
  repeatWhile,
  V128,
  when,
  type Code,
  type Machine,
} from '../wasm';

/** Numbers of a pair of curves: start, length, value, k1, k2, k3 of the legs they are in, each of one curve and of the other. */
export const PAIR = 12;
export const [START, LENGTH, VALUE, K1, K2, K3] = [0, 2, 4, 6, 8, 10] as const;
export const BYTES = 8;

/**
 * Computes all pairs of a memory that begins with them; they end, in bytes, at `end`, and there is one at least. Each curve has its place,
 * in bytes from `values` on, in the list at `places`: there its value goes. Those that are not in their leg are listed from `waiting`
 * on; gives how many these are.
 */
export type PairsRun = (
  end: number,
  frame: number,
  places: number,
  values: number,
  waiting: number,
) => number;

/** Locals: what the function is given, then what it works with. */
const [END, FRAME, PLACES, VALUES, WAITING] = [0, 1, 2, 3, 4] as const;
const [AT, CURVE, OTHERS, ARE_IN, FRAMES, SINCE, LENGTHS, TAU, BOTH] = [
  5, 6, 7, 8, 9, 10, 11, 12, 13,
] as const;
const { get, set } = local;

const load = (field: number) => inRow(get(AT), f64x2.load(field * BYTES));
const tauTimes = (piece: Code) => inRow(get(TAU), piece, f64x2.multiply);
const plus = (field: number, piece: Code) => inRow(load(field), piece, f64x2.add);
const step = (place: number, by: number) => inRow(get(place), i32.const(by), i32.add, set(place));
const placeOf = (curve: 0 | 1) => inRow(get(VALUES), get(PLACES), i32.load(curve * 4), i32.add);
const letWait = (curve: Code) => inRow(get(WAITING), curve, i32.store(), step(WAITING, 4), step(OTHERS, 1));
const unlessIn = (bit: number, piece: Code) =>
  inRow(get(ARE_IN), i32.const(bit), i32.and, i32.isZero, when(piece));

const onePair = inRow(
  inRow(get(FRAMES), load(START), f64x2.subtract, set(SINCE)),
  inRow(load(LENGTH), set(LENGTHS)),
  inRow(get(SINCE), get(LENGTHS), f64x2.divide, set(TAU)),
  inRow(plus(VALUE, tauTimes(plus(K1, tauTimes(plus(K2, tauTimes(load(K3))))))), set(BOTH)),
  inRow(placeOf(0), get(BOTH), f64x2.lane(0), f64.store()),
  inRow(placeOf(1), get(BOTH), f64x2.lane(1), f64.store()),
  inRow(get(SINCE), f64.const(0), f64x2.splat, f64x2.greaterOrEqual),
  inRow(get(SINCE), get(LENGTHS), f64x2.lessThan, f64x2.and, f64x2.truths, set(ARE_IN)),
  unlessIn(1, letWait(get(CURVE))),
  unlessIn(2, letWait(inRow(get(CURVE), i32.const(1), i32.add))),
);

/** The walk through all pairs as WebAssembly; null where that can't be had. */
export function legsInPairs(machine: Machine): PairsRun | null {
  return machine.compiled<PairsRun>(
    { asked: [], functions: {} },
    {
      parameters: [I32, F64, I32, I32, I32],
      result: I32,
      locals: [I32, I32, I32, I32, V128, V128, V128, V128, V128],
      body: inRow(
        inRow(get(FRAME), f64x2.splat, set(FRAMES)),
        repeatWhile(
          inRow(
            onePair,
            step(CURVE, 2),
            step(PLACES, 2 * 4),
            step(AT, PAIR * BYTES),
            inRow(get(AT), get(END), i32.lessThan),
          ),
        ),
        get(OTHERS),
      ),
    },
  );
}
