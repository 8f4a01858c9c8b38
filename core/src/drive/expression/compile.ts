import jsep from 'jsep';
import {
  addJets,
  constantJet,
  divideJets,
  multiplyJets,
  scaleJet,
  signAfter,
  subtractJets,
  type Jet,
} from '../../law';
import { BUILT_IN_NAMES, CONSTANTS, FUNCTIONS, MOST_ARGUMENTS } from './functions';

/**
 * The expression language of contract §7: parsed by jsep with its operators cut down to ours, then turned
 * into two closures, one over numbers and one over jets (value and exact rates).
 */
export interface CompiledExpression {
  /** `env` is `[frame, seconds, input 0, input 1, …]`. */
  readonly value: (env: Float64Array) => number;
  readonly jet: (env: readonly Jet[]) => Jet;
}

interface Node {
  readonly value: (env: Float64Array) => number;
  readonly jet: (env: readonly Jet[]) => Jet;
}

class ExpressionError extends Error {}

const OPERATORS: Readonly<Record<string, number>> = {
  '||': 1,
  '&&': 2,
  '==': 6,
  '!=': 6,
  '<': 7,
  '<=': 7,
  '>': 7,
  '>=': 7,
  '+': 9,
  '-': 9,
  '*': 10,
  '/': 10,
};
for (const operator of Object.keys(jsep.binary_ops))
  if (!(operator in OPERATORS)) jsep.removeBinaryOp(operator);
for (const operator of Object.keys(jsep.unary_ops))
  if (operator !== '-' && operator !== '!') jsep.removeUnaryOp(operator);
jsep.removeAllLiterals();

/** Characters an expression may have, and levels on which it may nest. */
const MOST_CHARACTERS = 65_536;
const MOST_LEVELS = 256;

const NUMBER = /^(?:(?:0|[1-9]\d*)(?:\.\d+)?|\.\d+)(?:[eE][+-]?\d+)?$/;

/**
 * Compiles an expression over named inputs. The message of a failure says what is wrong and what would be right.
 */
export function compileExpression(
  text: string,
  inputNames: readonly string[],
):
  | { readonly ok: true; readonly value: CompiledExpression }
  | { readonly ok: false; readonly message: string } {
  try {
    const slots = new Map<string, number>([
      ['frame', 0],
      ['seconds', 1],
    ]);
    inputNames.forEach((name, i) => {
      if (BUILT_IN_NAMES.has(name)) {
        throw new ExpressionError(
          `an input is called "${name}", which is a built-in name; it must have another`,
        );
      }
      slots.set(name, i + 2);
    });
    if (text.trim() === '') throw new ExpressionError('the expression is empty; it must be a formula');
    if (text.length > MOST_CHARACTERS)
      throw new ExpressionError(
        `the expression has ${text.length} characters; it may have at most ${MOST_CHARACTERS}`,
      );
    refuseDeepBrackets(text);
    return { ok: true, value: build(jsep(text), slots, MOST_LEVELS) };
  } catch (error) {
    if (error instanceof RangeError) return { ok: false, message: TOO_DEEP };
    const reason = error instanceof Error ? error.message : String(error);
    return {
      ok: false,
      message: error instanceof ExpressionError ? reason : `the expression can't be read: ${reason}`,
    };
  }
}

const TOO_DEEP = `the expression is nested too deeply; it may have at most ${MOST_LEVELS} levels`;

/** Brackets are counted in the text: the parser forgets them, and would run out of stack. */
function refuseDeepBrackets(text: string): void {
  let depth = 0;
  for (const character of text) {
    if (character === '(' && ++depth > MOST_LEVELS) throw new ExpressionError(TOO_DEEP);
    if (character === ')') depth--;
  }
}

/** A node with what hangs below it, on at most `levels` levels. */
function build(expression: jsep.Expression, slots: ReadonlyMap<string, number>, levels: number): Node {
  if (levels === 0) throw new ExpressionError(TOO_DEEP);
  switch (expression.type) {
    case 'Literal':
      return literal(expression as jsep.Literal);
    case 'Identifier':
      return identifier((expression as jsep.Identifier).name, slots);
    case 'UnaryExpression': {
      const { operator, argument } = expression as jsep.UnaryExpression;
      const x = build(argument, slots, levels - 1);
      if (operator === '-') return { value: (env) => -x.value(env), jet: (env) => scaleJet(x.jet(env), -1) };
      return truth(
        (env) => !isTrue(x.value(env)),
        (env) => !isTrueAfter(x.jet(env)),
      );
    }
    case 'BinaryExpression':
    case 'LogicalExpression': {
      return chain(expression as jsep.BinaryExpression, slots, levels);
    }
    case 'ConditionalExpression': {
      const { test, consequent, alternate } = expression as jsep.ConditionalExpression;
      const [condition, yes, no] = [test, consequent, alternate].map((each) =>
        build(each, slots, levels - 1),
      ) as [Node, Node, Node];
      return {
        value: (env) => (isTrue(condition.value(env)) ? yes.value(env) : no.value(env)),
        jet: (env) => (isTrueAfter(condition.jet(env)) ? yes.jet(env) : no.jet(env)),
      };
    }
    case 'CallExpression':
      return call(expression as jsep.CallExpression, slots, levels);
    default:
      throw new ExpressionError(
        `the expression has something besides numbers, inputs, operators and functions (${expression.type}); it must be one formula`,
      );
  }
}

/**
 * A row of operations, `a + b − c …`, which the parser gives as operations in operations: the left one is on the same level, and
 * a long row is computed one after the other.
 */
function chain(expression: jsep.BinaryExpression, slots: ReadonlyMap<string, number>, levels: number): Node {
  const row: jsep.BinaryExpression[] = [];
  let first: jsep.Expression = expression;
  while (first.type === 'BinaryExpression' || first.type === 'LogicalExpression') {
    row.push(first as jsep.BinaryExpression);
    first = (first as jsep.BinaryExpression).left;
  }
  row.reverse();
  if (row.length <= SHORT_ROW)
    return row.reduce(
      (left, { operator, right }) => binary(operator, left, build(right, slots, levels - 1)),
      build(first, slots, levels - 1),
    );
  return longRow(
    build(first, slots, levels - 1),
    row.map(({ operator, right }) => ({ operator, right: build(right, slots, levels - 1) })),
  );
}

/** Rows up to this length are nested functions, which is quicker; longer ones are computed in a loop, which needs no stack. */
const SHORT_ROW = 64;

function longRow(first: Node, row: readonly { readonly operator: string; readonly right: Node }[]): Node {
  let value = 0;
  let jet = constantJet(0);
  const held: Node = { value: () => value, jet: () => jet };
  const steps = row.map(({ operator, right }) => binary(operator, held, right));
  return {
    value: (env) => {
      value = first.value(env);
      for (const step of steps) value = step.value(env);
      return value;
    },
    jet: (env) => {
      jet = first.jet(env);
      for (const step of steps) jet = step.jet(env);
      return jet;
    },
  };
}

function literal({ value, raw }: jsep.Literal): Node {
  if (typeof value !== 'number' || !NUMBER.test(raw)) {
    throw new ExpressionError(`${raw} is no number; numbers are written as in JSON, or like .5`);
  }
  const jet = constantJet(value);
  return { value: () => value, jet: () => jet };
}

function identifier(name: string, slots: ReadonlyMap<string, number>): Node {
  const constant = CONSTANTS.get(name);
  if (constant !== undefined) {
    const jet = constantJet(constant);
    return { value: () => constant, jet: () => jet };
  }
  const slot = slots.get(name);
  if (slot === undefined) {
    throw new ExpressionError(
      `"${name}" is neither an input nor built in; it must be one of ${[...slots.keys()].join(', ')}, pi`,
    );
  }
  return { value: (env) => env[slot]!, jet: (env) => env[slot] ?? constantJet(Number.NaN) };
}

function call(
  { callee, arguments: list }: jsep.CallExpression,
  slots: ReadonlyMap<string, number>,
  levels: number,
): Node {
  const name = callee.type === 'Identifier' ? (callee as jsep.Identifier).name : '';
  const known = FUNCTIONS.get(name);
  if (!known)
    throw new ExpressionError(
      `"${name}" is no function; it must be one of ${[...FUNCTIONS.keys()].join(', ')}`,
    );
  if (list.length < known.least || list.length > known.most) {
    const wanted =
      known.most === MOST_ARGUMENTS ? `${known.least} to ${MOST_ARGUMENTS}` : String(known.least);
    throw new ExpressionError(`${name} has ${list.length} arguments; it must have ${wanted}`);
  }
  const nodes = list.map((argument) => build(argument, slots, levels - 1));
  const args = new Array<number>(nodes.length).fill(0);
  return {
    value: (env) => {
      for (let i = 0; i < nodes.length; i++) args[i] = nodes[i]!.value(env);
      return known.value(args);
    },
    jet: (env) => known.jet(nodes.map((node) => node.jet(env))),
  };
}

function isTrue(x: number): boolean {
  return x !== 0;
}
/** Truth just after the moment: a value that is zero only now counts by where it goes. */
function isTrueAfter(x: Jet): boolean {
  return signAfter(x) !== 0;
}

function truth(value: (env: Float64Array) => boolean, jet: (env: readonly Jet[]) => boolean): Node {
  return { value: (env) => (value(env) ? 1 : 0), jet: (env) => constantJet(jet(env) ? 1 : 0) };
}

function binary(operator: string, a: Node, b: Node): Node {
  const signOf = (env: readonly Jet[]) => signAfter(subtractJets(a.jet(env), b.jet(env)));
  switch (operator) {
    case '+':
      return { value: (env) => a.value(env) + b.value(env), jet: (env) => addJets(a.jet(env), b.jet(env)) };
    case '-':
      return {
        value: (env) => a.value(env) - b.value(env),
        jet: (env) => subtractJets(a.jet(env), b.jet(env)),
      };
    case '*':
      return {
        value: (env) => a.value(env) * b.value(env),
        jet: (env) => multiplyJets(a.jet(env), b.jet(env)),
      };
    case '/':
      return {
        value: (env) => a.value(env) / b.value(env),
        jet: (env) => divideJets(a.jet(env), b.jet(env)),
      };
    case '<':
      return truth(
        (env) => a.value(env) < b.value(env),
        (env) => signOf(env) < 0,
      );
    case '<=':
      return truth(
        (env) => a.value(env) <= b.value(env),
        (env) => signOf(env) <= 0,
      );
    case '>':
      return truth(
        (env) => a.value(env) > b.value(env),
        (env) => signOf(env) > 0,
      );
    case '>=':
      return truth(
        (env) => a.value(env) >= b.value(env),
        (env) => signOf(env) >= 0,
      );
    case '==':
      return truth(
        (env) => a.value(env) === b.value(env),
        (env) => signOf(env) === 0,
      );
    case '!=':
      return truth(
        (env) => a.value(env) !== b.value(env),
        (env) => signOf(env) !== 0,
      );
    case '&&':
      return truth(
        (env) => isTrue(a.value(env)) && isTrue(b.value(env)),
        (env) => isTrueAfter(a.jet(env)) && isTrueAfter(b.jet(env)),
      );
    case '||':
      return truth(
        (env) => isTrue(a.value(env)) || isTrue(b.value(env)),
        (env) => isTrueAfter(a.jet(env)) || isTrueAfter(b.jet(env)),
      );
    default:
      throw new ExpressionError(
        `the operator ${operator} is not known; use + - * / < <= > >= == != && || ! ?:`,
      );
  }
}
