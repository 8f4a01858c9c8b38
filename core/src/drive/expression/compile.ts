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
import { codeOf, type Formula, type FormulaCode } from './code';
import type { Operation } from './operations';
import { BUILT_IN_NAMES, CONSTANTS, FUNCTIONS, MOST_ARGUMENTS } from './functions';

/**
 * The expression language of contract §7: parsed by jsep with its operators cut down to ours, then turned into code over numbers
 * and a closure over jets (value and exact rates).
 */
export interface CompiledExpression {
  /** Inputs are `[frame, seconds, input 0, input 1, …]`. */
  readonly code: FormulaCode;
  readonly jet: (env: readonly Jet[]) => Jet;
}

interface Node {
  readonly formula: Formula;
  readonly jet: (env: readonly Jet[]) => Jet;
}

/** What is wrong with an expression, and the piece of its text that is meant, where there is one. */
class ExpressionError extends Error {
  constructor(
    message: string,
    readonly piece?: string,
  ) {
    super(message);
  }
}

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
 * Compiles an expression over named inputs. The message of a failure says what is wrong and what would be right; `at` is the place
 * in the text, in characters, where that is known.
 */
export function compileExpression(
  text: string,
  inputNames: readonly string[],
):
  | { readonly ok: true; readonly value: CompiledExpression }
  | { readonly ok: false; readonly message: string; readonly at?: number } {
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
    const { formula, jet } = build(jsep(text), slots, MOST_LEVELS);
    return { ok: true, value: { code: codeOf(formula, inputNames.length + 2), jet } };
  } catch (error) {
    if (error instanceof RangeError) return { ok: false, message: TOO_DEEP };
    const reason = error instanceof Error ? error.message : String(error);
    const at = placeOf(error, text);
    return {
      ok: false,
      message: error instanceof ExpressionError ? reason : `the expression can't be read: ${reason}`,
      ...(at === undefined ? {} : { at }),
    };
  }
}

/** Where in the text an error lies: the parser says it, and a word that is meant is looked for. */
function placeOf(error: unknown, text: string): number | undefined {
  if (!(error instanceof ExpressionError)) return (error as { readonly index?: number }).index;
  if (error.piece === undefined) return undefined;
  const word = error.piece.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const found = new RegExp(`(?<![\\w$.])${word}(?![\\w$])`).exec(text)?.index ?? -1;
  return found < 0 ? undefined : found;
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
      if (operator === '-')
        return { formula: operation('negate', x), jet: (env) => scaleJet(x.jet(env), -1) };
      return { formula: operation('not', x), jet: truth((env) => !isTrueAfter(x.jet(env))) };
    }
    case 'BinaryExpression':
    case 'LogicalExpression':
      return chain(expression as jsep.BinaryExpression, slots, levels);
    case 'ConditionalExpression': {
      const { test, consequent, alternate } = expression as jsep.ConditionalExpression;
      const [condition, yes, no] = [test, consequent, alternate].map((each) =>
        build(each, slots, levels - 1),
      ) as [Node, Node, Node];
      return {
        formula: operation('choose', condition, yes, no),
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

function operation(name: Operation, ...nodes: readonly Node[]): Formula {
  return { is: 'operation', operation: name, of: nodes.map(({ formula }) => formula) };
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
  return inRow(
    build(first, slots, levels - 1),
    row.map(({ operator, right }) => ({ operator, right: build(right, slots, levels - 1) })),
  );
}

function inRow(first: Node, row: readonly { readonly operator: string; readonly right: Node }[]): Node {
  let jet = constantJet(0);
  let { formula } = first;
  const steps = row.map(({ operator, right }) => {
    const step = binary(operator, { formula, jet: () => jet }, right);
    formula = step.formula;
    return step;
  });
  return {
    formula,
    jet: (env) => {
      let last = first.jet(env);
      for (const step of steps) {
        jet = last;
        last = step.jet(env);
      }
      return last;
    },
  };
}

function literal({ value, raw }: jsep.Literal): Node {
  if (typeof value !== 'number' || !NUMBER.test(raw)) {
    throw new ExpressionError(`${raw} is no number; numbers are written as in JSON, or like .5`, raw);
  }
  const jet = constantJet(value);
  return { formula: { is: 'number', value }, jet: () => jet };
}

function identifier(name: string, slots: ReadonlyMap<string, number>): Node {
  const constant = CONSTANTS.get(name);
  if (constant !== undefined) {
    const jet = constantJet(constant);
    return { formula: { is: 'number', value: constant }, jet: () => jet };
  }
  const slot = slots.get(name);
  if (slot === undefined) {
    throw new ExpressionError(
      `"${name}" is neither an input nor built in; it must be one of ${[...slots.keys()].join(', ')}, pi`,
      name,
    );
  }
  return {
    formula: { is: 'input', place: slot },
    jet: (env) => env[slot] ?? constantJet(Number.NaN),
  };
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
      name,
    );
  if (list.length < known.least || list.length > known.most) {
    const wanted =
      known.most === MOST_ARGUMENTS ? `${known.least} to ${MOST_ARGUMENTS}` : String(known.least);
    throw new ExpressionError(`${name} has ${list.length} arguments; it must have ${wanted}`, name);
  }
  const nodes = list.map((argument) => build(argument, slots, levels - 1));
  const formulas = nodes.map(({ formula }) => formula);
  // Functions of any number of arguments are rows of theirs with two.
  const formula = formulas
    .slice(known.least > 1 ? formulas.length : 1)
    .reduce<Formula>(
      (left, right) => ({ is: 'operation', operation: known.operation, of: [left, right] }),
      known.most === MOST_ARGUMENTS
        ? formulas[0]!
        : { is: 'operation', operation: known.operation, of: formulas },
    );
  return { formula, jet: (env) => known.jet(nodes.map((node) => node.jet(env))) };
}

/** Truth just after the moment: a value that is zero only now counts by where it goes. */
function isTrueAfter(x: Jet): boolean {
  return signAfter(x) !== 0;
}

function truth(jet: (env: readonly Jet[]) => boolean): Node['jet'] {
  return (env) => constantJet(jet(env) ? 1 : 0);
}

function binary(operator: string, a: Node, b: Node): Node {
  const signOf = (env: readonly Jet[]) => signAfter(subtractJets(a.jet(env), b.jet(env)));
  switch (operator) {
    case '+':
      return { formula: operation('add', a, b), jet: (env) => addJets(a.jet(env), b.jet(env)) };
    case '-':
      return { formula: operation('subtract', a, b), jet: (env) => subtractJets(a.jet(env), b.jet(env)) };
    case '*':
      return { formula: operation('multiply', a, b), jet: (env) => multiplyJets(a.jet(env), b.jet(env)) };
    case '/':
      return { formula: operation('divide', a, b), jet: (env) => divideJets(a.jet(env), b.jet(env)) };
    case '<':
      return { formula: operation('less', a, b), jet: truth((env) => signOf(env) < 0) };
    case '<=':
      return { formula: operation('lessOrEqual', a, b), jet: truth((env) => signOf(env) <= 0) };
    case '>':
      return { formula: operation('less', b, a), jet: truth((env) => signOf(env) > 0) };
    case '>=':
      return { formula: operation('lessOrEqual', b, a), jet: truth((env) => signOf(env) >= 0) };
    case '==':
      return { formula: operation('equal', a, b), jet: truth((env) => signOf(env) === 0) };
    case '!=':
      return { formula: operation('notEqual', a, b), jet: truth((env) => signOf(env) !== 0) };
    case '&&':
      return {
        formula: operation('and', a, b),
        jet: truth((env) => isTrueAfter(a.jet(env)) && isTrueAfter(b.jet(env))),
      };
    case '||':
      return {
        formula: operation('or', a, b),
        jet: truth((env) => isTrueAfter(a.jet(env)) || isTrueAfter(b.jet(env))),
      };
    default:
      throw new ExpressionError(
        `the operator ${operator} is not known; use + - * / < <= > >= == != && || ! ?:`,
      );
  }
}
