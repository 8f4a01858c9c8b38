import { DEGREES, RADIANS } from '../../law';

/**
 * One operation over registers: `to`, `a`, `b`, `c` are their places in `r`. A small function each: what a compiler makes of one with
 * a branch for each operation is half as fast. All numbers stay in the typed array: passed from function to function they would be
 * allocated.
 */
type Step = (r: Float64Array, to: number, a: number, b: number, c: number) => void;

/** All operations. Angles are degrees; what is true is 1, and whatever is not 0 counts as true. */
const STEPS = {
  add: (r, to, a, b) => (r[to] = r[a]! + r[b]!),
  subtract: (r, to, a, b) => (r[to] = r[a]! - r[b]!),
  multiply: (r, to, a, b) => (r[to] = r[a]! * r[b]!),
  divide: (r, to, a, b) => (r[to] = r[a]! / r[b]!),
  negate: (r, to, a) => (r[to] = -r[a]!),
  not: (r, to, a) => (r[to] = r[a] !== 0 ? 0 : 1),
  less: (r, to, a, b) => (r[to] = r[a]! < r[b]! ? 1 : 0),
  lessOrEqual: (r, to, a, b) => (r[to] = r[a]! <= r[b]! ? 1 : 0),
  equal: (r, to, a, b) => (r[to] = r[a] === r[b] ? 1 : 0),
  notEqual: (r, to, a, b) => (r[to] = r[a] !== r[b] ? 1 : 0),
  and: (r, to, a, b) => (r[to] = r[a] !== 0 && r[b] !== 0 ? 1 : 0),
  or: (r, to, a, b) => (r[to] = r[a] !== 0 || r[b] !== 0 ? 1 : 0),
  choose: (r, to, a, b, c) => (r[to] = r[a] !== 0 ? r[b]! : r[c]!),
  min: (r, to, a, b) => (r[to] = Math.min(r[a]!, r[b]!)),
  max: (r, to, a, b) => (r[to] = Math.max(r[a]!, r[b]!)),
  abs: (r, to, a) => (r[to] = Math.abs(r[a]!)),
  sign: (r, to, a) => (r[to] = Math.sign(r[a]!)),
  floor: (r, to, a) => (r[to] = Math.floor(r[a]!)),
  ceil: (r, to, a) => (r[to] = Math.ceil(r[a]!)),
  round: (r, to, a) => (r[to] = Math.floor(r[a]! + 0.5)),
  sqrt: (r, to, a) => (r[to] = Math.sqrt(r[a]!)),
  pow: (r, to, a, b) => (r[to] = Math.pow(r[a]!, r[b]!)),
  exp: (r, to, a) => (r[to] = Math.exp(r[a]!)),
  log: (r, to, a) => (r[to] = Math.log(r[a]!)),
  sin: (r, to, a) => (r[to] = Math.sin(r[a]! * RADIANS)),
  cos: (r, to, a) => (r[to] = Math.cos(r[a]! * RADIANS)),
  tan: (r, to, a) => (r[to] = Math.tan(r[a]! * RADIANS)),
  asin: (r, to, a) => (r[to] = Math.asin(r[a]!) * DEGREES),
  acos: (r, to, a) => (r[to] = Math.acos(r[a]!) * DEGREES),
  atan: (r, to, a) => (r[to] = Math.atan(r[a]!) * DEGREES),
  atan2: (r, to, a, b) => (r[to] = Math.atan2(r[a]!, r[b]!) * DEGREES),
  hypot: (r, to, a, b) => (r[to] = Math.hypot(r[a]!, r[b]!)),
  clamp: (r, to, a, b, c) => (r[to] = Math.min(r[c]!, Math.max(r[b]!, r[a]!))),
  mix: (r, to, a, b, c) => (r[to] = r[a]! + (r[b]! - r[a]!) * r[c]!),
  smoothstep: (r, to, a, b, c) => (r[to] = smoothstep(r[a]!, r[b]!, r[c]!)),
  mod: (r, to, a, b) => (r[to] = r[a]! - r[b]! * Math.floor(r[a]! / r[b]!)),
} satisfies Readonly<Record<string, Step>>;

export type Operation = keyof typeof STEPS;

/** All operations, each at its number in code. */
export const OPERATIONS = Object.keys(STEPS) as readonly Operation[];
/** The number of each operation in code. */
export const OPERATION = Object.fromEntries(OPERATIONS.map((name, number) => [name, number])) as Readonly<
  Record<Operation, number>
>;
const RUNS: readonly Step[] = OPERATIONS.map((name) => STEPS[name]);

/** Numbers of one operation in code: `[operation, to, a, b, c]`. */
export const WORDS = 5;

/** Runs code, a row of operations over registers. Allocates nothing. */
export function runCode(code: Int32Array, r: Float64Array): void {
  for (let at = 0; at < code.length; at += WORDS)
    RUNS[code[at]!]!(r, code[at + 1]!, code[at + 2]!, code[at + 3]!, code[at + 4]!);
}

function smoothstep(a: number, b: number, x: number): number {
  const t = Math.min(1, Math.max(0, (x - a) / (b - a)));
  return t * t * (3 - 2 * t);
}
