import { parseArgs } from 'node:util';

/** Wrong usage: one clear line, exit 2. */
export class UsageError extends Error {}
/** A bad file: one clear line naming file and place, exit 1. */
export class FileError extends Error {}

export interface Arguments {
  readonly positional: readonly string[];
  readonly options: ReadonlyMap<string, string | true>;
}

/**
 * Splits options (`--name value`, `--name=value`, `--flag`) from file names. A value may begin with a minus sign, `-` is a file
 * name, and after `--` everything is.
 */
export function parseArguments(
  argv: readonly string[],
  withValue: readonly string[],
  flags: readonly string[],
): Arguments {
  const options: Record<string, { readonly type: 'string' | 'boolean' }> = {};
  for (const name of withValue) options[name] = { type: 'string' };
  for (const name of flags) options[name] = { type: 'boolean' };
  try {
    const { values, positionals } = parseArgs({
      args: joined(argv, withValue),
      options,
      allowPositionals: true,
      strict: true,
    });
    const given = Object.entries(values).flatMap(([name, value]) =>
      typeof value === 'string' || value === true ? [[name, value] as const] : [],
    );
    return { positional: positionals, options: new Map(given) };
  } catch (error) {
    throw new UsageError(reasonOf(error as NodeJS.ErrnoException));
  }
}

/** Values written as one with their options: Node would take `-1:1` after `--frames` for another option. */
function joined(argv: readonly string[], withValue: readonly string[]): string[] {
  const out: string[] = [];
  for (let i = 0; i < argv.length; i++) {
    const token = argv[i]!;
    if (token === '--') return [...out, ...argv.slice(i)];
    const next = argv[i + 1];
    if (
      next === undefined ||
      next === '--' ||
      !withValue.includes(token.slice(2)) ||
      !token.startsWith('--')
    ) {
      out.push(token);
    } else {
      out.push(`${token}=${next}`);
      i++;
    }
  }
  return out;
}

function reasonOf(error: NodeJS.ErrnoException): string {
  const option = /'(-[^' ]*)/.exec(error.message)?.[1] ?? 'an option';
  if (error.code === 'ERR_PARSE_ARGS_UNKNOWN_OPTION') return `there is no option ${option} here`;
  if (error.code !== 'ERR_PARSE_ARGS_INVALID_OPTION_VALUE') return error.message;
  return /does not take an argument/.test(error.message)
    ? `${option} takes no value`
    : `${option} needs a value after it`;
}

/** Refuses options that mean nothing in the case at hand: ignoring them would be a lie. */
export function refuseOptions(args: Arguments, names: readonly string[], why: string): void {
  const given = names.filter((name) => args.options.has(name)).map((name) => `--${name}`);
  if (given.length === 0) return;
  const verb = given.length > 1 ? why.replace(/^(say|goe)s/, (one) => one.replace(/e?s$/, '')) : why;
  throw new UsageError(`${given.join(' and ')} ${verb}`);
}

export function textOption(args: Arguments, name: string): string | undefined {
  const value = args.options.get(name);
  return typeof value === 'string' ? value : undefined;
}

export function numberOption(args: Arguments, name: string): number | undefined {
  const text = textOption(args, name);
  if (text === undefined) return undefined;
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value))
    throw new UsageError(`--${name} is "${text}"; it must be a number`);
  return value;
}

export interface FrameSpan {
  readonly start: number;
  readonly end: number;
  readonly step: number;
}

/** `A:B[:STEP]`. */
export function frameSpan(text: string): FrameSpan {
  const parts = text.split(':');
  const numbers = parts.map(Number);
  if (
    parts.length < 2 ||
    parts.length > 3 ||
    parts.some((part) => part.trim() === '') ||
    !numbers.every(Number.isFinite)
  ) {
    throw new UsageError(`--frames is "${text}"; it must be A:B or A:B:STEP, in frames`);
  }
  const [start = 0, end = 0, step = 1] = numbers;
  if (!(step > 0)) throw new UsageError(`the step in --frames is ${step}; it must be more than 0`);
  if (end < start)
    throw new UsageError(`--frames ends at ${end}, before it starts at ${start}; B must not be less than A`);
  if ((end - start) / step > 5e7)
    throw new UsageError(`--frames asks for more than 50 million frames; take a larger step`);
  return { start, end, step };
}
