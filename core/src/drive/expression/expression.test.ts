import fc from 'fast-check';
import { compileExpression, formulaValue } from '..';

/** A formula as a tree: written as ours, with brackets only where the precedence of C asks for them, and computed as it stands. */
type Tree =
  | { readonly is: 'number'; readonly text: string }
  | { readonly is: 'name'; readonly name: string }
  | { readonly is: 'unary'; readonly operator: '-' | '!'; readonly of: Tree }
  | { readonly is: 'binary'; readonly operator: string; readonly left: Tree; readonly right: Tree }
  | { readonly is: 'choice'; readonly test: Tree; readonly yes: Tree; readonly no: Tree }
  | { readonly is: 'call'; readonly name: string; readonly of: readonly Tree[] };

const LEVELS: Readonly<Record<string, number>> = {
  '||': 1,
  '&&': 2,
  '==': 3,
  '!=': 3,
  '<': 4,
  '<=': 4,
  '>': 4,
  '>=': 4,
  '+': 5,
  '-': 5,
  '*': 6,
  '/': 6,
};
const [CHOICE, UNARY] = [0, 7];

/** Ours, as it stands where at least so high a precedence is asked for. */
function ours(tree: Tree, least = CHOICE): string {
  const bracketed = (text: string, level: number) => (level < least ? `(${text})` : text);
  switch (tree.is) {
    case 'number':
      return tree.text;
    case 'name':
      return tree.name;
    case 'unary':
      return bracketed(`${tree.operator} ${ours(tree.of, UNARY)}`, UNARY);
    case 'binary': {
      const level = LEVELS[tree.operator]!;
      return bracketed(`${ours(tree.left, level)} ${tree.operator} ${ours(tree.right, level + 1)}`, level);
    }
    case 'choice':
      return bracketed(`${ours(tree.test, 1)} ? ${ours(tree.yes)} : ${ours(tree.no)}`, CHOICE);
    case 'call':
      return `${tree.name}(${tree.of.map((each) => ours(each)).join(', ')})`;
  }
}

const RAD = Math.PI / 180;
const clamped = (x: number, low: number, high: number) => Math.min(high, Math.max(low, x));
/** The functions as the contract has them, in Node's arithmetic. */
const F: Readonly<Record<string, (...values: number[]) => number>> = {
  min: Math.min,
  max: Math.max,
  abs: Math.abs,
  sign: Math.sign,
  floor: Math.floor,
  ceil: Math.ceil,
  round: (x: number) => Math.floor(x + 0.5),
  sqrt: Math.sqrt,
  pow: Math.pow,
  exp: Math.exp,
  log: Math.log,
  sin: (x: number) => Math.sin(x * RAD),
  cos: (x: number) => Math.cos(x * RAD),
  tan: (x: number) => Math.tan(x * RAD),
  asin: (x: number) => Math.asin(x) / RAD,
  acos: (x: number) => Math.acos(x) / RAD,
  atan: (x: number) => Math.atan(x) / RAD,
  atan2: (y: number, x: number) => Math.atan2(y, x) / RAD,
  hypot: Math.hypot,
  clamp: clamped,
  mix: (a: number, b: number, t: number) => a + (b - a) * t,
  smoothstep: (a: number, b: number, x: number) => {
    const t = clamped((x - a) / (b - a), 0, 1);
    return t * t * (3 - 2 * t);
  },
  mod: (a: number, b: number) => a - b * Math.floor(a / b),
};
const ARGUMENTS: Readonly<Record<string, number>> = {
  pow: 2,
  atan2: 2,
  hypot: 2,
  mod: 2,
  clamp: 3,
  mix: 3,
  smoothstep: 3,
};

const { formula } = fc.letrec<{ formula: Tree }>((tie) => ({
  formula: fc.oneof(
    { maxDepth: 6, withCrossShrink: true },
    fc.oneof(
      fc
        .oneof(fc.integer({ min: 0, max: 400 }), fc.double({ min: 0, max: 9, noNaN: true }))
        .map((value): Tree => ({ is: 'number', text: String(Math.abs(value)) })),
      fc.constantFrom('x', 'y', 'frame', 'seconds', 'pi').map((name): Tree => ({ is: 'name', name })),
    ),
    fc
      .tuple(fc.constantFrom<'-' | '!'>('-', '!'), tie('formula'))
      .map(([operator, of]): Tree => ({ is: 'unary', operator, of })),
    fc
      .tuple(fc.constantFrom(...Object.keys(LEVELS)), tie('formula'), tie('formula'))
      .map(([operator, left, right]): Tree => ({ is: 'binary', operator, left, right })),
    fc
      .tuple(tie('formula'), tie('formula'), tie('formula'))
      .map(([test, yes, no]): Tree => ({ is: 'choice', test, yes, no })),
    fc.constantFrom(...Object.keys(F)).chain((name) => {
      const count = ARGUMENTS[name] ?? (name === 'min' || name === 'max' ? 4 : 1);
      const least = name === 'min' || name === 'max' ? 1 : count;
      return fc
        .array(tie('formula'), { minLength: least, maxLength: count })
        .map((of): Tree => ({ is: 'call', name, of }));
    }),
  ),
}));

const BINARY: Readonly<Record<string, (a: number, b: number) => number>> = {
  '||': (a, b) => (a !== 0 || b !== 0 ? 1 : 0),
  '&&': (a, b) => (a !== 0 && b !== 0 ? 1 : 0),
  '==': (a, b) => (a === b ? 1 : 0),
  '!=': (a, b) => (a === b ? 0 : 1),
  '<': (a, b) => (a < b ? 1 : 0),
  '<=': (a, b) => (a <= b ? 1 : 0),
  '>': (a, b) => (a > b ? 1 : 0),
  '>=': (a, b) => (a >= b ? 1 : 0),
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b) => a / b,
};

/** What a tree comes to in Node's arithmetic. As in C, whatever is not 0 is true, also what is no number. */
function computed(tree: Tree, env: Readonly<Record<string, number>>): number {
  switch (tree.is) {
    case 'number':
      return Number(tree.text);
    case 'name':
      return env[tree.name]!;
    case 'unary': {
      const of = computed(tree.of, env);
      return tree.operator === '-' ? -of : of === 0 ? 1 : 0;
    }
    case 'binary':
      return BINARY[tree.operator]!(computed(tree.left, env), computed(tree.right, env));
    case 'choice':
      return computed(tree.test, env) === 0 ? computed(tree.no, env) : computed(tree.yes, env);
    case 'call': {
      return F[tree.name]!(...tree.of.map((each) => computed(each, env)));
    }
  }
}

describe('expressions', () => {
  it('come to what their trees come to in Node’s arithmetic: 10,000 random ones', () => {
    const number = fc.oneof(fc.integer({ min: -20, max: 20 }), fc.double({ min: -9, max: 9, noNaN: true }));
    let finite = 0;
    fc.assert(
      fc.property(formula, fc.tuple(number, number, number, number), (tree, env) => {
        const text = ours(tree);
        const compiled = compileExpression(text, ['x', 'y']);
        if (!compiled.ok) throw new Error(`${text}: ${compiled.message}`);
        const given = formulaValue(compiled.value.code, Float64Array.from(env));
        const [frame, seconds, x, y] = env;
        const expected = computed(tree, { frame, seconds, x, y, pi: Math.PI });
        if (Number.isFinite(expected)) {
          finite++;
          expect(Math.abs(given - expected)).toBeLessThanOrEqual(1e-12 * Math.max(1, Math.abs(expected)));
        } else expect(Number.isFinite(given)).toBe(false);
      }),
      { numRuns: 10_000, seed: 41 },
    );
    expect(finite).toBeGreaterThan(6000);
  });

  it.each([
    ['constructor', 'x.constructor'],
    ['constructor as a name', 'constructor'],
    ['a prototype as a function', '__proto__(1)'],
    ['a call on a string', '"".constructor("return 1")()'],
    ['a huge power', `${'pow(9, '.repeat(200)}9${')'.repeat(200)}`],
    ['deep brackets', `${'('.repeat(5000)}1${')'.repeat(5000)}`],
    ['deep minuses', `${'- '.repeat(20_000)}1`],
    ['deep choices', `${'x ? 1 : '.repeat(9000)}2`],
    ['a megabyte of sums', `1${' + 1'.repeat(250_000)}`],
    ['a megabyte of letters', 'x'.repeat(1_000_000)],
  ])('of hostile make are refused or computed at once: %s', (_, text) => {
    const compiled = compileExpression(text, ['x', 'y']);
    if (compiled.ok) expect(formulaValue(compiled.value.code, Float64Array.of(1, 2, 3, 4))).not.toBeNaN();
    else expect(compiled.message).toMatch(/must|may have at most|can't be read|besides numbers|is no number/);
  });
});
