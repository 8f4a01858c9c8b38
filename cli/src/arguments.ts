/** Wrong usage: one clear line, exit 2. */
export class UsageError extends Error {}
/** A bad file: one clear line naming file and place, exit 1. */
export class FileError extends Error {}

export interface Arguments {
  readonly positional: readonly string[];
  readonly options: ReadonlyMap<string, string | true>;
}

/** Splits `--name value`, `--name=value` and flags from file names; a value may begin with a minus sign. */
export function parseArguments(
  argv: readonly string[],
  withValue: readonly string[],
  flags: readonly string[],
): Arguments {
  const positional: string[] = [];
  const options = new Map<string, string | true>();
  for (let i = 0; i < argv.length; i++) {
    const token = argv[i]!;
    if (!token.startsWith('--')) {
      positional.push(token);
      continue;
    }
    const [name = '', inline] = splitOnce(token.slice(2), '=');
    if (flags.includes(name) && inline === undefined) {
      options.set(name, true);
    } else if (withValue.includes(name)) {
      const value = inline ?? argv[++i];
      if (value === undefined) throw new UsageError(`--${name} needs a value after it`);
      options.set(name, value);
    } else {
      throw new UsageError(`there is no option --${name} here`);
    }
  }
  return { positional, options };
}

function splitOnce(text: string, separator: string): [string, string?] {
  const at = text.indexOf(separator);
  return at < 0 ? [text] : [text.slice(0, at), text.slice(at + 1)];
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
