const RADIANS = Math.PI / 180;
const DEGREES = 180 / Math.PI;

/**
 * One operation for `lanes` formulas side by side: register n of lane i is `r[n·lanes + i]`, and `to`, `a`, `b`, `c` are registers
 * times `lanes`. A small function each: what a compiler makes of one with a branch for each operation is half as fast.
 */
type Lanes = (r: Float64Array, to: number, a: number, b: number, c: number, lanes: number) => void;

/** All operations. Angles are degrees; what is true is 1, and whatever is not 0 counts as true. */
const LANES = {
  add: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! + r[b + i]!;
  },
  subtract: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! - r[b + i]!;
  },
  multiply: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! * r[b + i]!;
  },
  divide: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! / r[b + i]!;
  },
  negate: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = -r[a + i]!;
  },
  not: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== 0 ? 0 : 1;
  },
  less: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! < r[b + i]! ? 1 : 0;
  },
  lessOrEqual: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! <= r[b + i]! ? 1 : 0;
  },
  equal: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] === r[b + i] ? 1 : 0;
  },
  notEqual: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== r[b + i] ? 1 : 0;
  },
  and: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== 0 && r[b + i] !== 0 ? 1 : 0;
  },
  or: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== 0 || r[b + i] !== 0 ? 1 : 0;
  },
  choose: (r, to, a, b, c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i] !== 0 ? r[b + i]! : r[c + i]!;
  },
  min: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.min(r[a + i]!, r[b + i]!);
  },
  max: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.max(r[a + i]!, r[b + i]!);
  },
  abs: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.abs(r[a + i]!);
  },
  sign: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.sign(r[a + i]!);
  },
  floor: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.floor(r[a + i]!);
  },
  ceil: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.ceil(r[a + i]!);
  },
  round: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.floor(r[a + i]! + 0.5);
  },
  sqrt: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.sqrt(r[a + i]!);
  },
  pow: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.pow(r[a + i]!, r[b + i]!);
  },
  exp: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.exp(r[a + i]!);
  },
  log: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.log(r[a + i]!);
  },
  sin: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.sin(r[a + i]! * RADIANS);
  },
  cos: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.cos(r[a + i]! * RADIANS);
  },
  tan: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.tan(r[a + i]! * RADIANS);
  },
  asin: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.asin(r[a + i]!) * DEGREES;
  },
  acos: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.acos(r[a + i]!) * DEGREES;
  },
  atan: (r, to, a, _b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.atan(r[a + i]!) * DEGREES;
  },
  atan2: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.atan2(r[a + i]!, r[b + i]!) * DEGREES;
  },
  hypot: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.hypot(r[a + i]!, r[b + i]!);
  },
  clamp: (r, to, a, b, c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = Math.min(r[c + i]!, Math.max(r[b + i]!, r[a + i]!));
  },
  mix: (r, to, a, b, c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! + (r[b + i]! - r[a + i]!) * r[c + i]!;
  },
  smoothstep: (r, to, a, b, c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = smoothstep(r[a + i]!, r[b + i]!, r[c + i]!);
  },
  mod: (r, to, a, b, _c, lanes) => {
    for (let i = 0; i < lanes; i++) r[to + i] = r[a + i]! - r[b + i]! * Math.floor(r[a + i]! / r[b + i]!);
  },
} satisfies Readonly<Record<string, Lanes>>;

export type Operation = keyof typeof LANES;

const NAMES = Object.keys(LANES) as Operation[];
/** The number of each operation in code. */
export const OPERATION = Object.fromEntries(NAMES.map((name, number) => [name, number])) as Readonly<
  Record<Operation, number>
>;
const RUNS: readonly Lanes[] = NAMES.map((name) => LANES[name]);

/** Numbers of one operation in code: `[operation, to, a, b, c]`. */
export const WORDS = 5;

/**
 * Runs code, a row of operations over registers. All numbers stay in a typed array; nothing is allocated, as closures over numbers
 * would have it.
 */
export function runCode(code: Int32Array, r: Float64Array, lanes: number): void {
  for (let at = 0; at < code.length; at += WORDS)
    RUNS[code[at]!]!(r, code[at + 1]!, code[at + 2]!, code[at + 3]!, code[at + 4]!, lanes);
}

function smoothstep(a: number, b: number, x: number): number {
  const t = Math.min(1, Math.max(0, (x - a) / (b - a)));
  return t * t * (3 - 2 * t);
}
