/**
 * Expressions as code: a row of operations over registers, five numbers each, `[operation, to, a, b, c]`. All numbers stay in a
 * typed array; nothing is allocated and no function is called for an operation, as closures over numbers would have it.
 */
export const OPERATION = {
  load: 0,
  add: 1,
  subtract: 2,
  multiply: 3,
  divide: 4,
  negate: 5,
  not: 6,
  less: 7,
  lessOrEqual: 8,
  equal: 9,
  notEqual: 10,
  and: 11,
  or: 12,
  choose: 13,
  min: 14,
  max: 15,
  abs: 16,
  sign: 17,
  floor: 18,
  ceil: 19,
  round: 20,
  sqrt: 21,
  pow: 22,
  exp: 23,
  log: 24,
  sin: 25,
  cos: 26,
  tan: 27,
  asin: 28,
  acos: 29,
  atan: 30,
  atan2: 31,
  hypot: 32,
  clamp: 33,
  mix: 34,
  smoothstep: 35,
  mod: 36,
} as const;
export type Operation = keyof typeof OPERATION;

/** Numbers of one operation in the code. */
export const WORDS = 5;

const RADIANS = Math.PI / 180;
const DEGREES = 180 / Math.PI;

/**
 * Runs the operations from `start` to before `end` for `lanes` formulas side by side: register n of lane i is `r[n·lanes + i]`, and
 * the code has its registers times `lanes`. `load` takes the channel whose slot is `slots[a + i]`. Angles are degrees; what is
 * true is 1, and whatever is not 0 counts as true.
 */
export function runCode(
  code: Int32Array,
  start: number,
  end: number,
  r: Float64Array,
  channels: Float64Array,
  slots: Int32Array,
  lanes: number,
): void {
  for (let at = start; at < end; at += WORDS) {
    const to = code[at + 1]!;
    const a = code[at + 2]!;
    const b = code[at + 3]!;
    const c = code[at + 4]!;
    switch (code[at]!) {
      case 0:
        for (let i = 0; i < lanes; i++) r[to + i] = channels[slots[a + i]!]!;
        break;
      case 1:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! + r[b + i]!;
        break;
      case 2:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! - r[b + i]!;
        break;
      case 3:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! * r[b + i]!;
        break;
      case 4:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! / r[b + i]!;
        break;
      case 5:
        for (let i = 0; i < lanes; i++) r[to + i] = -r[a + i]!;
        break;
      case 6:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== 0 ? 0 : 1;
        break;
      case 7:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! < r[b + i]! ? 1 : 0;
        break;
      case 8:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! <= r[b + i]! ? 1 : 0;
        break;
      case 9:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] === r[b + i] ? 1 : 0;
        break;
      case 10:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== r[b + i] ? 1 : 0;
        break;
      case 11:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== 0 && r[b + i] !== 0 ? 1 : 0;
        break;
      case 12:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== 0 || r[b + i] !== 0 ? 1 : 0;
        break;
      case 13:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== 0 ? r[b + i]! : r[c + i]!;
        break;
      case 14:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.min(r[a + i]!, r[b + i]!);
        break;
      case 15:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.max(r[a + i]!, r[b + i]!);
        break;
      case 16:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.abs(r[a + i]!);
        break;
      case 17:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.sign(r[a + i]!);
        break;
      case 18:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.floor(r[a + i]!);
        break;
      case 19:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.ceil(r[a + i]!);
        break;
      case 20:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.floor(r[a + i]! + 0.5);
        break;
      case 21:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.sqrt(r[a + i]!);
        break;
      case 22:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.pow(r[a + i]!, r[b + i]!);
        break;
      case 23:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.exp(r[a + i]!);
        break;
      case 24:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.log(r[a + i]!);
        break;
      case 25:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.sin(r[a + i]! * RADIANS);
        break;
      case 26:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.cos(r[a + i]! * RADIANS);
        break;
      case 27:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.tan(r[a + i]! * RADIANS);
        break;
      case 28:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.asin(r[a + i]!) * DEGREES;
        break;
      case 29:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.acos(r[a + i]!) * DEGREES;
        break;
      case 30:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.atan(r[a + i]!) * DEGREES;
        break;
      case 31:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.atan2(r[a + i]!, r[b + i]!) * DEGREES;
        break;
      case 32:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.hypot(r[a + i]!, r[b + i]!);
        break;
      case 33:
        for (let i = 0; i < lanes; i++) r[to + i] = Math.min(r[c + i]!, Math.max(r[b + i]!, r[a + i]!));
        break;
      case 34:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! + (r[b + i]! - r[a + i]!) * r[c + i]!;
        break;
      case 35:
        for (let i = 0; i < lanes; i++) r[to + i] = smoothstep(r[a + i]!, r[b + i]!, r[c + i]!);
        break;
      case 36:
        for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! - r[b + i]! * Math.floor(r[a + i]! / r[b + i]!);
        break;
    }
  }
}

function smoothstep(a: number, b: number, x: number): number {
  const t = Math.min(1, Math.max(0, (x - a) / (b - a)));
  return t * t * (3 - 2 * t);
}

/** A formula as a tree of operations, or one of its leaves: a number, or an input by its place. */
export type Formula =
  | { readonly is: 'number'; readonly value: number }
  | { readonly is: 'input'; readonly place: number }
  | { readonly is: 'operation'; readonly operation: Operation; readonly of: readonly Formula[] };

/**
 * The code of a formula by itself. Registers: first `inputs` for the inputs, then the constants, then what is worked with.
 */
export interface FormulaCode {
  readonly words: Int32Array;
  readonly inputs: number;
  readonly constants: readonly number[];
  /** Registers in all, and the one with the result. */
  readonly registers: number;
  readonly result: number;
  /** Formulas of one shape have the same operations over the same registers: only their constants differ. */
  readonly shape: string;
}

/** Puts a formula's operations in a row; operations on nothing but numbers are done here. No stack is needed for long rows. */
export function codeOf(formula: Formula, inputs: number): FormulaCode {
  const constants: number[] = [];
  const words: number[] = [];
  const constantAt = new Map<number, number>();
  const free: number[] = [];
  let working = 0;
  /** Registers of constants and of what is worked with are numbered apart first: −1, −2, … and −1,000,001, … */
  const constant = (value: number): number => {
    let known = Object.is(value, -0) ? undefined : constantAt.get(value);
    if (known === undefined) {
      known = -1 - constants.length;
      constants.push(value);
      if (!Object.is(value, -0)) constantAt.set(value, known);
    }
    return known;
  };
  const release = (register: number): void => {
    if (register <= WORKING) free.push(register);
  };
  const place = (node: Formula): number => {
    const { leaf, operations } = leftmost(node);
    let register = leaf.is === 'number' ? constant(leaf.value) : leaf.place;
    for (const { operation, of } of operations) {
      const all = [register, ...of.slice(1).map(place)];
      for (const each of all) release(each);
      const to = free.pop() ?? WORKING - working++;
      words.push(OPERATION[operation], to, register, all[1] ?? register, all[2] ?? register);
      register = to;
    }
    return register;
  };
  const result = place(folded(formula));
  const real = (register: number): number => {
    if (register >= 0) return register;
    return register > WORKING ? inputs - 1 - register : inputs + constants.length + (WORKING - register);
  };
  const registers = inputs + constants.length + working;
  const code = Int32Array.from(words, (word, i) => (i % WORDS === 0 ? word : real(word)));
  const shape = `${inputs} ${registers} ${real(result)} ${code.join(' ')}`;
  return { words: code, inputs, constants, registers, result: real(result), shape };
}

const WORKING = -1_000_001;

/** The value of a formula by itself at some inputs, in their order. */
export function formulaValue(
  { words, inputs, constants, registers, result }: FormulaCode,
  at: ArrayLike<number>,
): number {
  const r = new Float64Array(registers);
  r.set(at);
  r.set(constants, inputs);
  runCode(words, 0, words.length, r, r, NO_SLOTS, 1);
  return r[result]!;
}

type Leaf = Exclude<Formula, { is: 'operation' }>;
type Branch = Extract<Formula, { is: 'operation' }>;

/** A formula's leftmost leaf, and the operations on the way to it, the innermost first: a row of any length needs no stack. */
function leftmost(formula: Formula): { readonly leaf: Leaf; readonly operations: readonly Branch[] } {
  const operations: Branch[] = [];
  let at = formula;
  for (; at.is === 'operation'; at = at.of[0]!) operations.push(at);
  return { leaf: at, operations: operations.reverse() };
}

/** A formula whose operations on numbers alone are done. */
function folded(formula: Formula): Formula {
  const { leaf, operations } = leftmost(formula);
  let made: Formula = leaf;
  for (const { operation, of } of operations) {
    const all: Formula[] = [made, ...of.slice(1).map(folded)];
    const numbers = all.flatMap((each) => (each.is === 'number' ? [each.value] : []));
    made =
      numbers.length === all.length
        ? { is: 'number', value: valueOf(operation, numbers) }
        : { is: 'operation', operation, of: all };
  }
  return made;
}

const NO_SLOTS = new Int32Array(0);

function valueOf(operation: Operation, numbers: readonly number[]): number {
  const registers = new Float64Array(4);
  registers.set(numbers, 1);
  runCode(Int32Array.of(OPERATION[operation], 0, 1, 2, 3), 0, WORDS, registers, registers, NO_SLOTS, 1);
  return registers[0]!;
}
