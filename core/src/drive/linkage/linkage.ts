import type { Jet } from '../../law';

/** A mechanism with its dimensions filled in: from the values of its inputs to one output, as number and as jet. */
export interface Mechanism {
  /** Not finite where the mechanism cannot reach. */
  readonly value: (inputs: ArrayLike<number>) => number;
  readonly jet: (inputs: readonly Jet[]) => Jet;
}

/** A kind of mechanism: what it reads, gives and needs (contract §8). */
export interface Linkage {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  /** Dimensions that must be given, and the defaults of those that may be left out. */
  readonly required: readonly string[];
  readonly defaults: Readonly<Record<string, number>>;
  /** What is wrong with the dimensions, or null. */
  readonly refuse?: (params: Readonly<Record<string, number>>) => string | null;
  readonly make: (params: Readonly<Record<string, number>>, output: string) => Mechanism;
}

export const RADIANS = Math.PI / 180;
export const DEGREES = 180 / Math.PI;
