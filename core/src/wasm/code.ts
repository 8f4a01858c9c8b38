/**
 * Instructions of WebAssembly as bytes (WebAssembly Core Specification 2.0, chapter 5.4): only those that are used here. Code is put
 * together in the order in which it is done: operands first, then what is done with them.
 */
export type Code = readonly number[];

/** The two types of values that functions pass on. */
export const I32 = 0x7f;
export const F64 = 0x7c;
/** Two numbers of 64 bits side by side. */
export const V128 = 0x7b;
export type ValueType = typeof I32 | typeof F64 | typeof V128;

/** A whole number without sign in as few bytes as it needs (LEB128). */
export function unsigned(value: number): Code {
  const bytes: number[] = [];
  let rest = value;
  do {
    const low = rest % 128;
    rest = Math.floor(rest / 128);
    bytes.push(rest > 0 ? low + 128 : low);
  } while (rest > 0);
  return bytes;
}

function signed(value: number): Code {
  const bytes: number[] = [];
  let rest = value;
  for (;;) {
    const low = rest & 127;
    rest >>= 7;
    const done = rest === (low & 64 ? -1 : 0);
    bytes.push(done ? low : low + 128);
    if (done) return bytes;
  }
}

function double(value: number): Code {
  return [...new Uint8Array(Float64Array.of(value).buffer)];
}

/** Instructions after another in one list. */
export function inRow(...pieces: readonly Code[]): Code {
  return pieces.flat();
}

const ALIGNED_4 = 2;
const ALIGNED_8 = 3;
const ALIGNED_16 = 4;
const vector = (number: number): Code => [0xfd, ...unsigned(number)];

export const local = {
  get: (place: number): Code => [0x20, ...unsigned(place)],
  set: (place: number): Code => [0x21, ...unsigned(place)],
  tee: (place: number): Code => [0x22, ...unsigned(place)],
};

export const i32 = {
  const: (value: number): Code => [0x41, ...signed(value)],
  load: (offset = 0): Code => [0x28, ALIGNED_4, ...unsigned(offset)],
  store: (offset = 0): Code => [0x36, ALIGNED_4, ...unsigned(offset)],
  isZero: [0x45],
  lessThan: [0x48],
  add: [0x6a],
  and: [0x71],
  or: [0x72],
} as const;

export const f64 = {
  const: (value: number): Code => [0x44, ...double(value)],
  load: (offset = 0): Code => [0x2b, ALIGNED_8, ...unsigned(offset)],
  store: (offset = 0): Code => [0x39, ALIGNED_8, ...unsigned(offset)],
  equal: [0x61],
  notEqual: [0x62],
  lessThan: [0x63],
  lessOrEqual: [0x65],
  abs: [0x99],
  negate: [0x9a],
  ceil: [0x9b],
  floor: [0x9c],
  sqrt: [0x9f],
  add: [0xa0],
  subtract: [0xa1],
  multiply: [0xa2],
  divide: [0xa3],
  min: [0xa4],
  max: [0xa5],
  /** 1 or 0 of what a comparison gave. */
  ofTruth: [0xb7],
} as const;

/** Two numbers at once. */
export const f64x2 = {
  load: (offset = 0): Code => [...vector(0x00), ALIGNED_16, ...unsigned(offset)],
  splat: vector(0x14),
  lessThan: vector(0x49),
  greaterOrEqual: vector(0x4c),
  and: vector(0x4e),
  add: vector(0xf0),
  subtract: vector(0xf1),
  multiply: vector(0xf2),
  divide: vector(0xf3),
  /** The first or second of the two. */
  lane: (place: 0 | 1): Code => [...vector(0x21), place],
  /** Bit 0 of the first number's comparison, bit 1 of the second's. */
  truths: vector(0xc4),
} as const;

/** Of a, b and a truth: a where it is true, else b. */
export const select: Code = [0x1b];
export const call = (place: number): Code => [0x10, ...unsigned(place)];

/** Does a piece where what is on the stack is true. */
export function when(piece: Code): Code {
  return inRow([0x04, 0x40], piece, [0x0b]);
}

/** Does a piece as long as the truth that it leaves at its end is true; at least once. */
export function repeatWhile(piece: Code): Code {
  return inRow([0x03, 0x40], piece, [0x0d, 0x00, 0x0b]);
}
