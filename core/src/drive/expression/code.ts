import { OPERATION, runCode, WORDS, type Operation } from './operations';

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
  runCode(words, r);
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

function valueOf(operation: Operation, numbers: readonly number[]): number {
  const registers = new Float64Array(4);
  registers.set(numbers, 1);
  runCode(Int32Array.of(OPERATION[operation], 0, 1, 2, 3), registers);
  return registers[0]!;
}
