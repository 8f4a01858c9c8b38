import type { Field, Fields } from '../../project';
import type { Jet } from '../../law';

/** A mechanism with its dimensions filled in, shared by all drivers that read it with the same inputs. */
export interface Mechanism {
  readonly outputs: number;
  /** Writes all outputs to `out[at…]`; gives 0, or why the mechanism has none there. */
  readonly solve: (inputs: Float64Array, out: Float64Array, at: number) => number;
  /** The outputs as jets: their exact rates. */
  readonly jets: (inputs: readonly Jet[]) => readonly Jet[];
}

/** What is wrong with a mechanism's dimensions, and where. */
export interface ParamProblem {
  readonly at: readonly (string | number)[];
  readonly message: string;
}
export interface ReadParams {
  readonly params: unknown;
  readonly make: () => Mechanism;
}

/** A kind of mechanism: what it reads, gives and needs (contract §8). */
export interface Linkage {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  /** Its dimensions. */
  readonly params: Fields;
  /** The dimensions with their defaults, ready to be made, or what is wrong with them. */
  readonly read: (params: Readonly<Record<string, unknown>>) => ReadParams | ParamProblem;
}

interface Described<P> {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly params: Fields;
  /** What is wrong with the dimensions together, or null. */
  readonly refuse?: (params: P) => string | null;
  readonly make: (params: P) => Omit<Mechanism, 'outputs'>;
}

/** A linkage from its description; `P` are its dimensions with their defaults put in. */
export function linkage<P>(name: string, described: Described<P>): Linkage {
  const { inputs, outputs, params, refuse, make } = described;
  return {
    inputs,
    outputs,
    params,
    read: (given) => {
      const filled: Record<string, unknown> = {};
      for (const [param, field] of Object.entries(params)) {
        const value = Object.hasOwn(given, param) ? given[param] : field.fallback;
        const problem = valueProblem(name, param, field, value);
        if (problem) return { at: [param, ...problem.at], message: problem.message };
        filled[param] = value;
      }
      const refused = refuse?.(filled as P);
      if (refused) return { at: [], message: refused };
      return { params: filled, make: () => ({ outputs: outputs.length, ...make(filled as P) }) };
    },
  };
}

function valueProblem(name: string, param: string, field: Field, value: unknown): ParamProblem | null {
  const { schema, inside } = field;
  const shown = JSON.stringify(value) ?? 'nothing';
  const wrong = (must: string): ParamProblem => ({
    at: [],
    message: `${shown} stands here; a ${name} must have ${must} "${param}"`,
  });
  const choices = schema['enum'] as readonly unknown[] | undefined;
  if (choices) return choices.includes(value) ? null : wrong(`${choices.map(String).join(' or ')} as`);
  if (schema['type'] === 'boolean') return typeof value === 'boolean' ? null : wrong('true or false as');
  if (schema['type'] === 'array') {
    if (!Array.isArray(value)) return wrong('a list');
    if (inside?.is === 'list') return null;
    const all = value.length === schema['minItems'] && value.every((each) => typeof each === 'number');
    return all ? null : wrong(`${String(schema['minItems'])} numbers as`);
  }
  if (typeof value !== 'number') return wrong('a number');
  if (schema['type'] === 'integer' && !Number.isInteger(value)) return wrong('a whole number');
  const above = schema['exclusiveMinimum'] as number | undefined;
  if (above !== undefined && !(value > above))
    return { at: [], message: `${param} is ${value}; it must be more than ${above}` };
  const least = schema['minimum'] as number | undefined;
  if (least !== undefined && !(value >= least))
    return { at: [], message: `${param} is ${value}; it must be at least ${least}` };
  return null;
}

/** A mechanism that only multiplies: output = factor·input + offset. */
export function proportional(factor: number, offset = 0): Omit<Mechanism, 'outputs'> {
  return {
    solve: (inputs, out, at) => {
      out[at] = factor * inputs[0]! + offset;
      return 0;
    },
    jets: ([input]) => {
      const [v, d1, d2, d3] = input!;
      return [[factor * v + offset, factor * d1, factor * d2, factor * d3]];
    },
  };
}
