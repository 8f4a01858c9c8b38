import {
  absJet,
  acosJet,
  addJets,
  asinJet,
  atan2Jet,
  atanJet,
  composeJet,
  constantJet,
  cosJet,
  DEGREES,
  divideJets,
  expJet,
  logJet,
  maxJet,
  minJet,
  multiplyJets,
  powJet,
  RADIANS,
  scaleJet,
  signAfter,
  sinJet,
  sqrtJet,
  subtractJets,
  tanJet,
  type Jet,
} from '../../law';
import type { Operation } from './operations';

/** A function of the expression language: its operation, and its rates. Angles are degrees. */
export interface ExpressionFunction {
  readonly least: number;
  readonly most: number;
  readonly operation: Operation;
  readonly jet: (args: readonly Jet[]) => Jet;
}

/** Arguments a function may have. */
export const MOST_ARGUMENTS = 64;
const ZERO = constantJet(0);
const ONE = constantJet(1);

function one(operation: Operation, jet: (x: Jet) => Jet): ExpressionFunction {
  return { least: 1, most: 1, operation, jet: (args) => jet(args[0]!) };
}
function two(operation: Operation, jet: (a: Jet, b: Jet) => Jet): ExpressionFunction {
  return { least: 2, most: 2, operation, jet: (args) => jet(args[0]!, args[1]!) };
}
function three(operation: Operation, jet: (a: Jet, b: Jet, c: Jet) => Jet): ExpressionFunction {
  return { least: 3, most: 3, operation, jet: (args) => jet(args[0]!, args[1]!, args[2]!) };
}

/** A step's jet: its value just after the moment, and no rates. */
function stepped(operation: Operation, after: (x: Jet) => number): ExpressionFunction {
  return one(operation, (x) => constantJet(after(x)));
}
const fallsAfter = (x: Jet) => signAfter([0, x[1], x[2], x[3]]) < 0;
const risesAfter = (x: Jet) => signAfter([0, x[1], x[2], x[3]]) > 0;

/** a − b·n for the n that holds just after the moment. */
function moduloJet(a: Jet, b: Jet): Jet {
  const turns = Math.floor(a[0] / b[0]);
  const jet = subtractJets(a, scaleJet(b, turns));
  return [a[0] - b[0] * turns, jet[1], jet[2], jet[3]];
}

/** The functions by name. One line a function. */
export const FUNCTIONS: ReadonlyMap<string, ExpressionFunction> = new Map<string, ExpressionFunction>([
  ['min', { least: 1, most: MOST_ARGUMENTS, operation: 'min', jet: (args) => args.reduce(minJet) }],
  ['max', { least: 1, most: MOST_ARGUMENTS, operation: 'max', jet: (args) => args.reduce(maxJet) }],
  ['abs', one('abs', absJet)],
  ['sign', stepped('sign', (x) => Math.sign(x[0]))],
  ['floor', stepped('floor', (x) => (Number.isInteger(x[0]) && fallsAfter(x) ? x[0] - 1 : Math.floor(x[0])))],
  ['ceil', stepped('ceil', (x) => (Number.isInteger(x[0]) && risesAfter(x) ? x[0] + 1 : Math.ceil(x[0])))],
  ['round', stepped('round', (x) => Math.floor(x[0] + 0.5))],
  ['sqrt', one('sqrt', sqrtJet)],
  ['pow', two('pow', powJet)],
  ['exp', one('exp', expJet)],
  ['log', one('log', logJet)],
  ['sin', one('sin', (x) => sinJet(scaleJet(x, RADIANS)))],
  ['cos', one('cos', (x) => cosJet(scaleJet(x, RADIANS)))],
  ['tan', one('tan', (x) => tanJet(scaleJet(x, RADIANS)))],
  ['asin', one('asin', (x) => scaleJet(asinJet(x), DEGREES))],
  ['acos', one('acos', (x) => scaleJet(acosJet(x), DEGREES))],
  ['atan', one('atan', (x) => scaleJet(atanJet(x), DEGREES))],
  ['atan2', two('atan2', (y, x) => scaleJet(atan2Jet(y, x), DEGREES))],
  ['hypot', two('hypot', (a, b) => sqrtJet(addJets(multiplyJets(a, a), multiplyJets(b, b))))],
  ['clamp', three('clamp', (x, low, high) => minJet(high, maxJet(low, x)))],
  ['mix', three('mix', (a, b, t) => addJets(a, multiplyJets(subtractJets(b, a), t)))],
  [
    'smoothstep',
    three('smoothstep', (a, b, x) => {
      const t = minJet(ONE, maxJet(ZERO, divideJets(subtractJets(x, a), subtractJets(b, a))));
      const s = t[0];
      return composeJet([s * s * (3 - 2 * s), 6 * s * (1 - s), 6 - 12 * s, -12], t);
    }),
  ],
  ['mod', two('mod', moduloJet)],
]);

export const CONSTANTS: ReadonlyMap<string, number> = new Map([['pi', Math.PI]]);
/** The words of the language besides an expression's own inputs, for those who write one. */
export const FORMULA_WORDS: readonly { readonly name: string; readonly isFunction: boolean }[] = [
  ...['frame', 'seconds', ...CONSTANTS.keys()].map((name) => ({ name, isFunction: false })),
  ...[...FUNCTIONS.keys()].map((name) => ({ name, isFunction: true })),
];
/** Names an input may not take. */
export const BUILT_IN_NAMES: ReadonlySet<string> = new Set([
  ...FUNCTIONS.keys(),
  ...CONSTANTS.keys(),
  'frame',
  'seconds',
]);
