import { FileError, UsageError } from './arguments';
import type { Command, Io } from './command';
import { convert } from './commands/convert';
import { sample } from './commands/sample';
import { validate } from './commands/validate';

/** The commands by name. One line a command. */
const COMMANDS: ReadonlyMap<string, Command> = new Map<string, Command>([
  ['sample', sample],
  ['validate', validate],
  ['convert', convert],
]);

/** Runs `kaizen …` and gives its exit code: 0 done, 1 a bad file, 2 wrong usage. Nothing is thrown. */
export function main(argv: readonly string[], io: Io): number {
  const [name, ...rest] = argv;
  if (name === undefined || name === 'help' || name === '--help') {
    const lines = [...COMMANDS.values()].map((command) => `  npx kaizen ${command.usage}\n`);
    io.out(`Kaizen reads, samples and converts projects:\n${lines.join('')}`);
    return name === undefined ? 2 : 0;
  }
  const command = COMMANDS.get(name);
  try {
    if (!command)
      throw new UsageError(
        `there is no command "${name}"; it must be one of ${[...COMMANDS.keys()].join(', ')}`,
      );
    return command.run(rest, io);
  } catch (error) {
    if (error instanceof UsageError) {
      io.err(`kaizen: ${error.message}${command ? `; usage: kaizen ${command.usage}` : ''}\n`);
      return 2;
    }
    if (error instanceof FileError) {
      io.err(`kaizen: ${error.message}\n`);
      return 1;
    }
    io.err(
      `kaizen: something went wrong inside (${error instanceof Error ? error.message : String(error)}); please report it with the file\n`,
    );
    return 1;
  }
}
