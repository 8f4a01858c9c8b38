import {
  call,
  F64,
  f64,
  I32,
  i32,
  inRow,
  local,
  type Machine,
  repeatWhile,
  select,
  type Code,
  type ValueType,
} from '../../wasm';
import { DEGREES, RADIANS } from '../../law';
import type { FormulaCode } from './code';
import { OPERATIONS, WORDS, type Operation } from './operations';

/** Functions that WebAssembly has no instruction for, as JavaScript has them, by their places as imports. */
const FUNCTIONS = {
  sin: Math.sin,
  cos: Math.cos,
  tan: Math.tan,
  asin: Math.asin,
  acos: Math.acos,
  atan: Math.atan,
  exp: Math.exp,
  log: Math.log,
  sign: Math.sign,
  atan2: Math.atan2,
  pow: Math.pow,
  hypot: Math.hypot,
} as const;
const NAMES = Object.keys(FUNCTIONS) as (keyof typeof FUNCTIONS)[];
const TWO_NUMBERS: ReadonlySet<string> = new Set(['atan2', 'pow', 'hypot']);
const IMPORTS = {
  asked: NAMES.map((name) => ({ name, parameters: TWO_NUMBERS.has(name) ? 2 : 1 })),
  functions: FUNCTIONS,
};
const calling = (name: keyof typeof FUNCTIONS) => call(NAMES.indexOf(name));

const ZERO = f64.const(0);
const ONE = f64.const(1);
const isTrue = (a: Code) => inRow(a, ZERO, f64.notEqual);
const one = (instruction: Code) => (a: Code) => inRow(a, instruction);
const two = (instruction: Code) => (a: Code, b: Code) => inRow(a, b, instruction);
const truth = (comparison: Code) => (a: Code, b: Code) => inRow(a, b, comparison, f64.ofTruth);
const ofDegrees = (name: keyof typeof FUNCTIONS) => (a: Code) =>
  inRow(a, f64.const(RADIANS), f64.multiply, calling(name));
const inDegrees = (name: keyof typeof FUNCTIONS) => (a: Code) =>
  inRow(a, calling(name), f64.const(DEGREES), f64.multiply);

/** What leaves the value of each operation, given what leaves those of its operands; the very arithmetic that the operations do. */
const CODE: Readonly<Record<Operation, (a: Code, b: Code, c: Code, spare: number) => Code>> = {
  add: two(f64.add),
  subtract: two(f64.subtract),
  multiply: two(f64.multiply),
  divide: two(f64.divide),
  negate: one(f64.negate),
  not: (a) => inRow(a, ZERO, f64.equal, f64.ofTruth),
  less: truth(f64.lessThan),
  lessOrEqual: truth(f64.lessOrEqual),
  equal: truth(f64.equal),
  notEqual: truth(f64.notEqual),
  and: (a, b) => inRow(isTrue(a), isTrue(b), i32.and, f64.ofTruth),
  or: (a, b) => inRow(isTrue(a), isTrue(b), i32.or, f64.ofTruth),
  choose: (a, b, c) => inRow(b, c, isTrue(a), select),
  min: two(f64.min),
  max: two(f64.max),
  abs: one(f64.abs),
  sign: one(calling('sign')),
  floor: one(f64.floor),
  ceil: one(f64.ceil),
  round: (a) => inRow(a, f64.const(0.5), f64.add, f64.floor),
  sqrt: one(f64.sqrt),
  pow: two(calling('pow')),
  exp: one(calling('exp')),
  log: one(calling('log')),
  sin: ofDegrees('sin'),
  cos: ofDegrees('cos'),
  tan: ofDegrees('tan'),
  asin: inDegrees('asin'),
  acos: inDegrees('acos'),
  atan: inDegrees('atan'),
  atan2: (a, b) => inRow(a, b, calling('atan2'), f64.const(DEGREES), f64.multiply),
  hypot: two(calling('hypot')),
  clamp: (a, b, c) => inRow(c, b, a, f64.max, f64.min),
  mix: (a, b, c) => inRow(a, b, a, f64.subtract, c, f64.multiply, f64.add),
  smoothstep: (a, b, c, spare) => {
    const share = inRow(c, a, f64.subtract, b, a, f64.subtract, f64.divide);
    const t = local.get(spare);
    return inRow(
      inRow(ONE, ZERO, share, f64.max, f64.min, local.tee(spare)),
      inRow(t, f64.multiply, f64.const(3), f64.const(2), t, f64.multiply, f64.subtract, f64.multiply),
    );
  },
  mod: (a, b) => inRow(a, b, a, b, f64.divide, f64.floor, f64.multiply, f64.subtract),
};

/** Locals of the function: where the row is, where the rows end, where the result goes, the frame, its seconds; then the registers. */
const [AT, END, TO, FRAME, REGISTERS] = [0, 1, 2, 3, 5] as const;

/**
 * Computes rows of numbers of a memory that begin at the byte `start` and end at `end`, and writes the results one after the other from
 * `to` on. A row has the inputs besides frame and seconds, then the constants, at least one number.
 */
export type FormulaRun = (start: number, end: number, to: number, frame: number, seconds: number) => void;

/** Inputs that all formulas have: the frame and its seconds. */
export const SHARED = 2;

/** Numbers of a row. */
export function rowWidth({ inputs, constants }: FormulaCode): number {
  return Math.max(1, inputs - SHARED + constants.length);
}

/** A formula's code as WebAssembly, for all formulas of its shape; null where that can't be had. */
export function formulaRun(machine: Machine, formula: FormulaCode): FormulaRun | null {
  const { words, inputs, constants, registers, result } = formula;
  const at = (register: number) => (register < SHARED ? FRAME + register : REGISTERS + register - SHARED);
  const given = inputs + constants.length;
  const width = rowWidth(formula);
  const spare = at(registers);
  const pieces: Code[] = [];
  for (let register = SHARED; register < given; register++)
    pieces.push(inRow(local.get(AT), f64.load((register - SHARED) * 8), local.set(at(register))));
  for (let word = 0; word < words.length; word += WORDS) {
    const [operation, to, a, b, c] = words.subarray(word, word + WORDS) as unknown as [number, ...number[]];
    const [x, y, z] = [a, b, c].map((register) => local.get(at(register!)));
    pieces.push(inRow(CODE[OPERATIONS[operation]!](x!, y!, z!, spare), local.set(at(to!))));
  }
  pieces.push(
    inRow(local.get(TO), local.get(at(result)), f64.store()),
    inRow(local.get(TO), i32.const(8), i32.add, local.set(TO)),
    inRow(local.get(AT), i32.const(width * 8), i32.add, local.tee(AT)),
    inRow(local.get(END), i32.lessThan),
  );
  const ownRegisters = registers - SHARED + 1;
  return machine.compiled<FormulaRun>(IMPORTS, {
    parameters: [I32, I32, I32, F64, F64],
    result: null,
    locals: new Array<ValueType>(ownRegisters).fill(F64),
    body: repeatWhile(pieces.flat()),
  });
}
