import { compile, plainSentence, type Problem } from '@kaizen/core';
import { parseArguments, UsageError } from '../arguments';
import { readAny } from '../files';
import type { Command, Io } from '../command';

export const validate: Command = {
  usage: 'validate FILE',
  about: [
    'Prints one line a problem, with its JSON pointer; nothing where the file is good. Exit 0 good, 1 bad.',
    'FILE - is standard input.',
  ],
  run: async (argv, io) => {
    const args = parseArguments(argv, [], []);
    const [file] = args.positional;
    if (file === undefined || args.positional.length > 1) throw new UsageError('validate takes one file');
    const problems = await findProblems(file, io);
    for (const { pointer, message } of problems) io.out(`${plainSentence(`${pointer}: ${message}`)}\n`);
    return problems.length > 0 ? 1 : 0;
  },
};

/** Everything wrong in the file: what can't be read, and what can't be computed. */
async function findProblems(file: string, io: Io): Promise<readonly Problem[]> {
  const read = await readAny(file, io);
  if (!read.ok) return read.problems;
  const compiled = compile(read.value.project);
  return compiled.ok ? [] : compiled.problems;
}
