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

/** A function of the expression language, as numbers and as jets. Angles are degrees. */
export interface ExpressionFunction {
  readonly least: number;
  readonly most: number;
  readonly value: (args: readonly number[]) => number;
  readonly jet: (args: readonly Jet[]) => Jet;
}

/** Arguments a function may have. */
export const MOST_ARGUMENTS = 64;
const ZERO = constantJet(0);
const ONE = constantJet(1);

function one(value: (x: number) => number, jet: (x: Jet) => Jet): ExpressionFunction {
  return { least: 1, most: 1, value: (args) => value(args[0]!), jet: (args) => jet(args[0]!) };
}
function two(value: (a: number, b: number) => number, jet: (a: Jet, b: Jet) => Jet): ExpressionFunction {
  return {
    least: 2,
    most: 2,
    value: (args) => value(args[0]!, args[1]!),
    jet: (args) => jet(args[0]!, args[1]!),
  };
}
function three(
  value: (a: number, b: number, c: number) => number,
  jet: (a: Jet, b: Jet, c: Jet) => Jet,
): ExpressionFunction {
  return {
    least: 3,
    most: 3,
    value: (args) => value(args[0]!, args[1]!, args[2]!),
    jet: (args) => jet(args[0]!, args[1]!, args[2]!),
  };
}

/** A step's jet: its value just after the moment, and no rates. */
function stepped(value: (x: number) => number, after: (x: Jet) => number): ExpressionFunction {
  return one(value, (x) => constantJet(after(x)));
}
const fallsAfter = (x: Jet) => signAfter([0, x[1], x[2], x[3]]) < 0;
const risesAfter = (x: Jet) => signAfter([0, x[1], x[2], x[3]]) > 0;

function flooredModulo(a: number, b: number): number {
  return a - b * Math.floor(a / b);
}

/** a − b·n for the n that holds just after the moment. */
function moduloJet(a: Jet, b: Jet): Jet {
  const value = flooredModulo(a[0], b[0]);
  const turns = Math.round((a[0] - value) / b[0]);
  const jet = subtractJets(a, scaleJet(b, turns));
  return [value, jet[1], jet[2], jet[3]];
}

function smoothstep(a: number, b: number, x: number): number {
  const t = Math.min(1, Math.max(0, (x - a) / (b - a)));
  return t * t * (3 - 2 * t);
}

/** The functions by name. One line a function. */
export const FUNCTIONS: ReadonlyMap<string, ExpressionFunction> = new Map<string, ExpressionFunction>([
  [
    'min',
    {
      least: 1,
      most: MOST_ARGUMENTS,
      value: (args) => Math.min(...args),
      jet: (args) => args.reduce(minJet),
    },
  ],
  [
    'max',
    {
      least: 1,
      most: MOST_ARGUMENTS,
      value: (args) => Math.max(...args),
      jet: (args) => args.reduce(maxJet),
    },
  ],
  ['abs', one(Math.abs, absJet)],
  ['sign', stepped(Math.sign, (x) => Math.sign(x[0]))],
  [
    'floor',
    stepped(Math.floor, (x) => (Number.isInteger(x[0]) && fallsAfter(x) ? x[0] - 1 : Math.floor(x[0]))),
  ],
  ['ceil', stepped(Math.ceil, (x) => (Number.isInteger(x[0]) && risesAfter(x) ? x[0] + 1 : Math.ceil(x[0])))],
  [
    'round',
    stepped(
      (x) => Math.floor(x + 0.5),
      (x) => Math.floor(x[0] + 0.5),
    ),
  ],
  ['sqrt', one(Math.sqrt, sqrtJet)],
  ['pow', two(Math.pow, powJet)],
  ['exp', one(Math.exp, expJet)],
  ['log', one(Math.log, logJet)],
  [
    'sin',
    one(
      (x) => Math.sin(x * RADIANS),
      (x) => sinJet(scaleJet(x, RADIANS)),
    ),
  ],
  [
    'cos',
    one(
      (x) => Math.cos(x * RADIANS),
      (x) => cosJet(scaleJet(x, RADIANS)),
    ),
  ],
  [
    'tan',
    one(
      (x) => Math.tan(x * RADIANS),
      (x) => tanJet(scaleJet(x, RADIANS)),
    ),
  ],
  [
    'asin',
    one(
      (x) => Math.asin(x) * DEGREES,
      (x) => scaleJet(asinJet(x), DEGREES),
    ),
  ],
  [
    'acos',
    one(
      (x) => Math.acos(x) * DEGREES,
      (x) => scaleJet(acosJet(x), DEGREES),
    ),
  ],
  [
    'atan',
    one(
      (x) => Math.atan(x) * DEGREES,
      (x) => scaleJet(atanJet(x), DEGREES),
    ),
  ],
  [
    'atan2',
    two(
      (y, x) => Math.atan2(y, x) * DEGREES,
      (y, x) => scaleJet(atan2Jet(y, x), DEGREES),
    ),
  ],
  [
    'hypot',
    two(
      (a, b) => Math.hypot(a, b),
      (a, b) => sqrtJet(addJets(multiplyJets(a, a), multiplyJets(b, b))),
    ),
  ],
  [
    'clamp',
    three(
      (x, low, high) => Math.min(high, Math.max(low, x)),
      (x, low, high) => minJet(high, maxJet(low, x)),
    ),
  ],
  [
    'mix',
    three(
      (a, b, t) => a + (b - a) * t,
      (a, b, t) => addJets(a, multiplyJets(subtractJets(b, a), t)),
    ),
  ],
  [
    'smoothstep',
    three(smoothstep, (a, b, x) => {
      const t = minJet(ONE, maxJet(ZERO, divideJets(subtractJets(x, a), subtractJets(b, a))));
      const s = t[0];
      return composeJet([s * s * (3 - 2 * s), 6 * s * (1 - s), 6 - 12 * s, -12], t);
    }),
  ],
  ['mod', two(flooredModulo, moduloJet)],
]);

export const CONSTANTS: ReadonlyMap<string, number> = new Map([['pi', Math.PI]]);
/** Names an input may not take. */
export const BUILT_IN_NAMES: ReadonlySet<string> = new Set([
  ...FUNCTIONS.keys(),
  ...CONSTANTS.keys(),
  'frame',
  'seconds',
]);
