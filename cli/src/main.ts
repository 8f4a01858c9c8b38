import { plainSentence } from '@kaizen/core';
import { FileError, UsageError } from './arguments';
import type { Command, Io } from './command';
import { convert } from './commands/convert';
import { sample } from './commands/sample';
import { validate } from './commands/validate';
import { VERSION } from './version';

/** The commands by name. One line a command. */
const COMMANDS: ReadonlyMap<string, Command> = new Map<string, Command>([
  ['sample', sample],
  ['validate', validate],
  ['convert', convert],
]);

const ASKS_HELP: ReadonlySet<string> = new Set(['help', '--help', '-h']);
const ASKS_VERSION: ReadonlySet<string> = new Set(['version', '--version', '-v']);

/** Runs `kaizen …` and gives its exit code: 0 done, 1 a bad file, 2 wrong usage. Nothing is thrown. */
export async function main(argv: readonly string[], io: Io): Promise<number> {
  const [name, ...rest] = argv;
  const command = name === undefined ? undefined : COMMANDS.get(name);
  const tell = (message: string) => io.err(`${plainSentence(`kaizen: ${message}`)}\n`);
  if (name === undefined) {
    io.err(help());
    return 2;
  }
  if (ASKS_VERSION.has(name) || (command && asks(rest, ASKS_VERSION))) {
    io.out(`kaizen ${VERSION}\n`);
    return 0;
  }
  if (ASKS_HELP.has(name) || (command && asks(rest, ASKS_HELP))) {
    const asked = command ?? COMMANDS.get(rest[0] ?? '');
    io.out(asked ? helpOf(asked) : help());
    return 0;
  }
  try {
    if (!command)
      throw new UsageError(
        `there is no command "${name}"; it must be one of ${[...COMMANDS.keys()].join(', ')}`,
      );
    return await command.run(rest, io);
  } catch (error) {
    if (error instanceof UsageError) {
      tell(`${error.message}${command ? `; kaizen ${name} --help shows how` : ''}`);
      return 2;
    }
    if (error instanceof FileError) {
      tell(error.message);
      return 1;
    }
    tell(
      `something went wrong inside (${error instanceof Error ? error.message : String(error)}); please report it with the file`,
    );
    return 1;
  }
}

/** Whether an option asks for help or the version; what follows `--` is a file name. */
function asks(argv: readonly string[], words: ReadonlySet<string>): boolean {
  const end = argv.indexOf('--');
  return argv.slice(0, end < 0 ? undefined : end).some((word) => word.startsWith('-') && words.has(word));
}

function help(): string {
  const lines = [...COMMANDS.values()].map((command) => `  npx kaizen ${command.usage}\n`);
  return `Kaizen reads, samples and converts projects:\n${lines.join('')}  npx kaizen COMMAND --help, npx kaizen --version\n`;
}

function helpOf({ usage, about }: Command): string {
  return `npx kaizen ${usage}\n${about.map((line) => `  ${line}\n`).join('')}`;
}
